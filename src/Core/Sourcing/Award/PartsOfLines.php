<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/** What is asked for less than the whole of a line. */
interface PartsOfLines
{
    /** Stock units wanted of a line. */
    public function units(int|string $line): float;

    /** What a supplier asks for so many stock units of a line; null where it does not sell so few. */
    public function part(int|string $line, int|string $supplier, float $units): ?Bid;

    /**
     * Stock units below the whole from which a supplier's price changes, or that fill its packs without a rest.
     *
     * @return list<float>
     */
    public function steps(int|string $line, int|string $supplier): array;
}
