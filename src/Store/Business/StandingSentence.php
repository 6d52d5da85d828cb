<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A sentence kept to be chosen on orders. */
#[ORM\Entity]
class StandingSentence
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue without words */
    public function __construct(#[ORM\Column(length: 300, unique: true)] private string $words)
    {
        $this->say($words);
    }

    /** @throws InvalidValue without words */
    public function say(string $words): void
    {
        $this->words = '' !== trim($words) ? trim($words) : throw InvalidValue::because('Say the sentence.');
    }

    public function words(): string
    {
        return $this->words;
    }
}
