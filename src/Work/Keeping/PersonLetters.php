<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Store\Person\Person;

/** Letters about signing in; in the queue when the step is saved, or not at all. */
interface PersonLetters
{
    /**
     * @param string $token   of a link that chooses a password
     * @param string $purpose as PersonLink says
     */
    public function sendLink(Person $to, string $token, string $purpose, int $hours): void;

    /**
     * How they sign in was changed: told so that somebody whose way in was taken notices (ASVS 4.0.3, 2.2.3).
     *
     * @param string $address where they read their mail, or read it until now
     * @param string $what    such as "your password was changed"
     */
    public function tellOfChange(Person $to, string $address, string $what): void;
}
