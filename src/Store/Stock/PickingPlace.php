<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** Where an item stands at one site and where it goes at another. */
final readonly class PickingPlace
{
    /**
     * @param string $bin  where it is picked; empty if unknown
     * @param string $to   where it is put away there
     * @param list<array{lot: string, units: float, expires: string|null, bin: string}> $lots what stands there
     */
    public function __construct(public string $bin, public string $to, public array $lots)
    {
    }

    /** Where it is picked: its own bin, and others in which some of it lies. */
    public function bins(): string
    {
        $bins = array_map(fn (array $lot): string => $lot['bin'] ?: $this->bin, $this->lots) ?: [$this->bin];

        return implode(', ', array_unique(array_filter($bins, static fn (string $bin): bool => '' !== $bin)));
    }

    /** Stock units that may go. */
    public function units(): float
    {
        return array_sum(array_column($this->lots, 'units'));
    }
}
