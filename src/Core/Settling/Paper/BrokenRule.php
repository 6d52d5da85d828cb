<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

/** A rule of EN 16931-1 that an invoice does not keep. */
final readonly class BrokenRule
{
    public function __construct(public string $rule, public string $words)
    {
    }

    public function __toString(): string
    {
        return $this->rule.': '.$this->words;
    }
}
