<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** How papers of a kind are to be numbered, as it is typed. */
final readonly class AskedNumbers
{
    public function __construct(public string $prefix, public ?int $next, public bool $byYear)
    {
    }
}
