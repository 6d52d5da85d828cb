<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use TallBarrel\Core\InvalidValue;

/**
 * How many of a lot to look at, and how many bad ones are too many: single sampling. Source:
 * MIL-STD-105E, tables I and II-A to II-C, which are in the public domain (from memory); I, II-A and II-B are the same
 * as tables 1, 2-A and 2-B of ISO 2859-1:1999.
 */
final readonly class SamplingPlan
{
    /** Acceptable quality limits, percent nonconforming, from the strictest. */
    public const LIMITS = ['0.10', '0.15', '0.25', '0.40', '0.65', '1.0', '1.5', '2.5', '4.0', '6.5', '10'];
    /** Lots up to so many have the size of the same place. */
    private const LOTS = [
        8, 15, 25, 50, 90, 150, 280, 500, 1200, 3200, 10_000, 35_000, 150_000, 500_000, \PHP_INT_MAX,
    ];
    private const SAMPLES = [2, 3, 5, 8, 13, 20, 32, 50, 80, 125, 200, 315, 500, 800, 1250, 2000];
    private const REDUCED_SAMPLES = [2, 2, 2, 3, 5, 8, 13, 20, 32, 50, 80, 125, 200, 315, 500, 800];
    /**
     * Letters beyond the one that accepts none: there two arrows, then these acceptance and rejection numbers; under
     * reduced inspection what lies between is taken, for the last time.
     */
    private const NUMBERS = [
        'normal' => [
            3 => [1, 2], 4 => [2, 3], 5 => [3, 4], 6 => [5, 6], 7 => [7, 8], 8 => [10, 11], 9 => [14, 15],
            10 => [21, 22],
        ],
        'tightened' => [
            3 => [1, 2], 4 => [2, 3], 5 => [3, 4], 6 => [5, 6], 7 => [8, 9], 8 => [12, 13], 9 => [18, 19],
        ],
        'reduced' => [
            3 => [0, 2], 4 => [1, 3], 5 => [1, 4], 6 => [2, 5], 7 => [3, 6], 8 => [5, 8], 9 => [7, 10],
            10 => [10, 13],
        ],
    ];
    /** Place of the letter that accepts none for the first of the limits; each next one is a letter earlier. */
    private const NONE_AT = 9;

    private function __construct(
        public int $sample,
        public int $accepted,
        public int $refused,
        public Severity $severity,
    ) {
    }

    /**
     * @param int    $lot   how many there are
     * @param string $limit one of LIMITS
     *
     * @throws InvalidValue if there is nothing to look at, or the limit is none of them
     */
    public static function of(
        int $lot,
        string $limit,
        Severity $severity = Severity::Normal,
        InspectionLevel $level = InspectionLevel::Two,
    ): self {
        $strictness = array_search($limit, self::LIMITS, true);
        if (false === $strictness) {
            throw InvalidValue::because(
                sprintf('“%s” is no limit of quality; expected one of %s.', $limit, implode(', ', self::LIMITS)),
            );
        }
        if ($lot < 1) {
            throw InvalidValue::because('There is nothing to inspect.');
        }
        $size = 0;
        while (self::LOTS[$size] < $lot) {
            ++$size;
        }
        $letter = $level->letter($size);
        // Tightened, a letter later accepts none.
        $none = self::NONE_AT - $strictness + (Severity::Tightened === $severity ? 1 : 0);
        $numbers = self::NUMBERS[$severity->value];
        $samples = Severity::Reduced === $severity ? self::REDUCED_SAMPLES : self::SAMPLES;
        // Below the letter that accepts none the arrows point to it; the first beyond points back, but not where
        // inspection is tightened; the second points on.
        $beyond = max(0, $letter - $none);
        $beyond = match (true) {
            1 === $beyond => Severity::Tightened === $severity ? 3 : 0,
            2 === $beyond => 3,
            default => min($beyond, array_key_last($numbers)),
        };
        // A limit of 10 % and small samples would point before the first letter: the first that has a number counts.
        while (!isset($samples[$none + $beyond])) {
            $beyond = 0 === $beyond ? 3 : $beyond + 1;
        }
        [$accepted, $refused] = $numbers[$beyond] ?? [0, 1];

        return new self(min($samples[$none + $beyond], $lot), $accepted, $refused, $severity);
    }

    /** Whether the lot may be taken when so many of the sample are bad. */
    public function accepts(int $bad): bool
    {
        return $bad < $this->refused;
    }

    /** Whether it is taken, but more was bad than reduced inspection goes on with. */
    public function endsReduced(int $bad): bool
    {
        return $bad > $this->accepted;
    }
}
