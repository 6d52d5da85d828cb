<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * Another method, working on the logarithms: what it adds to them multiplies the series, so that a trend grows by a
 * share and a season swings by one.
 *
 * Source: Box & Cox, "An Analysis of Transformations", Journal of the Royal Statistical Society B 26(2), 1964, λ = 0;
 * the forecast is the median, not corrected to the mean.
 */
final readonly class OnLogarithm implements Model
{
    /** Below it every value counts as so much. */
    private const LEAST = 1e-6;

    public function __construct(private Model $inner)
    {
    }

    /**
     * @param list<?float> $demand
     *
     * @return list<?float>
     */
    public static function of(array $demand): array
    {
        $least = log(self::LEAST);

        return array_map(
            static fn (?float $value): ?float => null === $value ? null : log(max(self::LEAST, $value)) - $least,
            $demand,
        );
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        return array_map(
            static fn (array $means): array => array_map(
                static fn (float $mean): float => exp(min(700.0, $mean + log(self::LEAST))),
                $means,
            ),
            $this->inner->roll(self::of($demand), $origins, $ahead),
        );
    }
}
