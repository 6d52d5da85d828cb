<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Which ways goods take between the sites of a business. */
final readonly class Ways
{
    /** @param array<int, array<int, Way|null>> $agreed from site to site, null where nothing goes; others are usual */
    public function __construct(private array $agreed = [])
    {
    }

    public function between(int $from, int $to): ?Way
    {
        return array_key_exists($to, $this->agreed[$from] ?? []) ? $this->agreed[$from][$to] : Way::usual();
    }
}
