<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

use TallBarrel\Core\InvalidValue;

/**
 * Demand that comes now and then: size and interval (or probability) of demand, smoothed apart.
 *
 * Sources: Croston, "Forecasting and Stock Control for Intermittent Demands", Operational Research Quarterly 23(3),
 * 1972;
 * Syntetos & Boylan, International Journal of Forecasting 21(2), 2005 (SBA: Croston × (1 − α/2)); Teunter, Syntetos &
 * Babai, European Journal of Operational Research 214(3), 2011 (TSB: the probability moves in every period).
 */
final readonly class Intermittent implements Model
{
    public const CROSTON = 'croston';
    public const SBA = 'sba';
    public const TSB = 'tsb';
    private const ALPHAS = [0.05, 0.1, 0.2, 0.3];
    private const BETAS = [0.02, 0.05, 0.1, 0.2];

    /**
     * @param float $alpha smoothing of sizes, and of intervals for Croston and SBA
     * @param float $beta  smoothing of the probability, TSB only
     */
    private function __construct(public string $kind, public float $alpha, public float $beta)
    {
    }

    /** @throws InvalidValue unless both lie between 0 and 1 */
    public static function of(string $kind, float $alpha, float $beta = 0.1): self
    {
        if ($alpha <= 0 || $alpha > 1 || $beta <= 0 || $beta > 1) {
            throw InvalidValue::because(
                sprintf('Smoothing by %g and %g is out of range; expected above 0 and up to 1.', $alpha, $beta),
            );
        }

        return new self($kind, $alpha, $beta);
    }

    /**
     * The smoothing with the least squared one-step error.
     *
     * @param list<?float> $demand
     */
    public static function fit(string $kind, array $demand): self
    {
        $best = [INF, self::ALPHAS[1], self::BETAS[1]];
        foreach (self::ALPHAS as $alpha) {
            foreach (self::TSB === $kind ? self::BETAS : [self::BETAS[1]] as $beta) {
                $squares = self::run($kind, $alpha, $beta, $demand, [])[0];
                if ($squares < $best[0]) {
                    $best = [$squares, $alpha, $beta];
                }
            }
        }

        return new self($kind, $best[1], $best[2]);
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        return array_map(
            static fn (float $rate): array => array_fill(0, $ahead, $rate),
            self::run($this->kind, $this->alpha, $this->beta, $demand, $origins)[1],
        );
    }

    /**
     * Started like R's forecast::croston: at the first size, and an interval counted from before the first value.
     *
     * @param list<?float> $demand
     * @param list<int>    $origins
     *
     * @return array{float, array<int, float>} squared one-step errors, rate by origin
     */
    private static function run(string $kind, float $alpha, float $beta, array $demand, array $origins): array
    {
        $size = $interval = null;
        $since = 1;
        $seen = 0;
        $came = 0;
        $chance = null;
        $squares = 0.0;
        $rates = [];
        $wanted = array_fill_keys($origins, true);
        $rate = 0.0;
        $end = count($demand);
        for ($t = 0; $t <= $end; ++$t) {
            if (isset($wanted[$t])) {
                $rates[$t] = $rate;
            }
            $value = $t < $end ? $demand[$t] : null;
            if (null === $value) {
                continue;
            }
            ++$seen;
            if (null !== $size) {
                $squares += ($value - $rate) ** 2;
            }
            if ($value > 0) {
                ++$came;
                $interval = null === $interval ? (float) $since : $interval + $alpha * ($since - $interval);
                $size = null === $size ? $value : $size + $alpha * ($value - $size);
                $since = 1;
            } else {
                ++$since;
            }
            if (self::TSB === $kind) {
                // The probability starts at the share of the first values that had demand.
                $chance =
                    null === $chance || $seen <= 4
                        ? $came / $seen
                        : $chance + $beta * (($value > 0 ? 1.0 : 0.0) - $chance);
                $rate = $chance * ($size ?? 0.0);
            } else {
                $rate =
                    null === $size || null === $interval
                        ? 0.0
                        : ($size / $interval) * (self::SBA === $kind ? 1 - $alpha / 2 : 1.0);
            }
        }

        return [$squares, $rates];
    }
}
