<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

/** A message: some of the items of a planning run are to be looked at. Whoever is free takes it. */
final readonly class PlanPart
{
    /** @param list<int> $items */
    public function __construct(public int $run, public int $part, public array $items, public bool $afresh)
    {
    }
}
