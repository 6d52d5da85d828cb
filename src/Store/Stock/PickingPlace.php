<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** Where an item stands at one site and where it goes at another. */
final readonly class PickingPlace
{
    /**
     * @param string                                                         $bin  where it is picked; empty if unknown
     * @param string                                                         $to   where it is put away there
     * @param list<array{lot: string, units: float, expires: string|null}> $lots what stands there, first to go first
     */
    public function __construct(public string $bin, public string $to, public array $lots)
    {
    }

    /** Stock units that may go. */
    public function units(): float
    {
        return array_sum(array_column($this->lots, 'units'));
    }
}
