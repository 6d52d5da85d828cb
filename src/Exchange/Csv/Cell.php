<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;

/** What is kept, as it is written into a cell. */
final readonly class Cell
{
    private function __construct()
    {
    }

    /** A number without needless zeros; nothing for null. */
    public static function number(BigDecimal|string|float|int|null $number): string
    {
        return null === $number ? '' : BigDecimal::of((string) $number)->strippedOfTrailingZeros()->toString();
    }

    public static function yes(bool|int|float|string|null $yes): string
    {
        return (bool) $yes ? 'yes' : 'no';
    }

    public static function day(\DateTimeImmutable|string|null $day): string
    {
        return $day instanceof \DateTimeImmutable ? $day->format('Y-m-d') : (string) $day;
    }
}
