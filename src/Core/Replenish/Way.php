<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** How long goods take from one site to another, and what a journey costs. */
final readonly class Way
{
    /** Days. */
    public const LONGEST = 60;
    private const DEAREST = 10000.0;

    private function __construct(public int $days, public float $cost)
    {
    }

    /** Tomorrow, and somebody has to pick it, carry it and book it (common practice, no source). */
    public static function usual(): self
    {
        return new self(1, 2.0);
    }

    /**
     * @param int   $days 0 to 60
     * @param float $cost of one item carried once, home currency
     *
     * @throws InvalidValue
     */
    public static function of(int $days, float $cost): self
    {
        if ($days < 0 || $days > self::LONGEST) {
            throw InvalidValue::because(sprintf('A way of %d days; expected 0 to %d.', $days, self::LONGEST));
        }
        if ($cost < 0 || $cost > self::DEAREST) {
            throw InvalidValue::because(sprintf('A journey for %g; expected 0 to %g.', $cost, self::DEAREST));
        }

        return new self($days, $cost);
    }
}
