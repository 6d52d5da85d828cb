<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

/** A line of the day-by-day table: what comes, what goes, what is left, and from what. Stock units. */
final readonly class PhasedDay
{
    /** @param list<string> $from orders and plans of that day, in words */
    public function __construct(
        public \DateTimeImmutable $day,
        public float $in,
        public float $out,
        public float $left,
        public float $leftWithout,
        public array $from,
    ) {
    }
}
