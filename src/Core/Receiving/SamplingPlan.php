<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use TallBarrel\Core\InvalidValue;

/**
 * How many of a lot to look at, and how many bad ones are too many: single sampling, normal inspection, general level
 * II. Source: ISO 2859-1:1999, tables 1 and 2-A (the same as MIL-STD-105E, tables I and II-A, which are in the public
 * domain).
 */
final readonly class SamplingPlan
{
    /** Acceptable quality limits, percent nonconforming, from the strictest. */
    public const LIMITS = ['0.10', '0.15', '0.25', '0.40', '0.65', '1.0', '1.5', '2.5', '4.0', '6.5', '10'];
    /** Lots up to so many have the code letter of the same place. */
    private const LOTS = [
        8, 15, 25, 50, 90, 150, 280, 500, 1200, 3200, 10_000, 35_000, 150_000, 500_000, \PHP_INT_MAX,
    ];
    private const SAMPLES = [2, 3, 5, 8, 13, 20, 32, 50, 80, 125, 200, 315, 500, 800, 1250];
    /** Letters beyond the one that accepts none: there an arrow up, an arrow down, then these acceptance numbers. */
    private const ACCEPTED = [3 => 1, 4 => 2, 5 => 3, 6 => 5, 7 => 7, 8 => 10, 9 => 14, 10 => 21];
    /** Place of the letter that accepts none for the first of the limits; each next one is a letter earlier. */
    private const NONE_AT = 9;

    private function __construct(public int $sample, public int $accepted)
    {
    }

    /**
     * @param int    $lot   how many there are
     * @param string $limit one of LIMITS
     *
     * @throws InvalidValue if there is nothing to look at, or the limit is none of them
     */
    public static function of(int $lot, string $limit): self
    {
        $strictness = array_search($limit, self::LIMITS, true);
        if (false === $strictness) {
            throw InvalidValue::because(
                sprintf('“%s” is no limit of quality; expected one of %s.', $limit, implode(', ', self::LIMITS)),
            );
        }
        if ($lot < 1) {
            throw InvalidValue::because('There is nothing to inspect.');
        }
        $letter = 0;
        while (self::LOTS[$letter] < $lot) {
            ++$letter;
        }
        $none = self::NONE_AT - $strictness;
        // Below the letter that accepts none the arrows point to it; the first beyond points back, the second on.
        $beyond = max(0, $letter - $none);
        $beyond = match ($beyond) {
            1 => 0,
            2 => 3,
            default => min($beyond, array_key_last(self::ACCEPTED)),
        };
        // A limit of 10 % and small samples would point before the first letter: the first that has a number counts.
        while (!isset(self::SAMPLES[$none + $beyond])) {
            $beyond = match ($beyond) {
                0 => 3,
                default => $beyond + 1,
            };
        }

        return new self(min(self::SAMPLES[$none + $beyond], $lot), self::ACCEPTED[$beyond] ?? 0);
    }

    /** Whether the lot may be taken when so many of the sample are bad. */
    public function accepts(int $bad): bool
    {
        return $bad <= $this->accepted;
    }
}
