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
}
