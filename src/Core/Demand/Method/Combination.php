<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * The weighted mean of several methods. Source: Bates & Granger, "The Combination of Forecasts", OR Quarterly 20(4),
 * 1969.
 */
final readonly class Combination implements Model
{
    /** @param non-empty-list<array{Model, float}> $parts methods with their weights, which add up to one */
    public function __construct(private array $parts)
    {
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        return self::of(
            array_map(
                static fn (array $part): array => [$part[0]->roll($demand, $origins, $ahead), $part[1]],
                $this->parts,
            ),
        );
    }

    /**
     * @param non-empty-list<array{array<int, list<float>>, float}> $rolled forecasts by origin, with the weight of each
     *      method
     *
     * @return array<int, list<float>>
     */
    public static function of(array $rolled): array
    {
        $mixed = [];
        foreach ($rolled[0][0] as $origin => $means) {
            foreach ($means as $h => $ignored) {
                $sum = 0.0;
                foreach ($rolled as [$forecasts, $weight]) {
                    $sum += $weight * $forecasts[$origin][$h];
                }
                $mixed[$origin][] = $sum;
            }
        }

        return $mixed;
    }
}
