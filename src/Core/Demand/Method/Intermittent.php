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
    /** The probability starts as the share of so many first values that had demand. */
    private const FIRST = 4;

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
        $known = self::known($demand);
        $tsb = self::TSB === $kind;
        $betas = $tsb ? self::BETAS : [self::BETAS[1]];
        // The probability does not ask how sizes are smoothed, nor they how it is.
        $chances = $tsb ? array_map(static fn (float $beta): array => self::chances($known, $beta), $betas) : [];
        $best = [INF, self::ALPHAS[1], self::BETAS[1]];
        foreach (self::ALPHAS as $alpha) {
            $sizes = self::sizes($known, $alpha);
            foreach ($betas as $i => $beta) {
                $squares = self::squares($known, $sizes, $chances[$i] ?? self::intervals($known, $alpha, $kind));
                if ($squares < $best[0]) {
                    $best = [$squares, $alpha, $beta];
                }
            }
        }

        return new self($kind, $best[1], $best[2]);
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $known = self::known($demand);
        $sizes = self::sizes($known, $this->alpha);
        $often = self::TSB === $this->kind
            ? self::chances($known, $this->beta)
            : self::intervals($known, $this->alpha, $this->kind);
        $rolled = [];
        $seen = $t = 0;
        foreach ($origins as $origin) {
            for (; $t < $origin; ++$t) {
                $seen += null === $demand[$t] ? 0 : 1;
            }
            $rolled[$origin] = array_fill(0, $ahead, 0 === $seen ? 0.0 : $sizes[$seen - 1] * $often[$seen - 1]);
        }

        return $rolled;
    }

    /**
     * @param list<?float> $demand
     *
     * @return list<float>
     */
    private static function known(array $demand): array
    {
        return array_values(array_filter($demand, static fn (?float $value): bool => null !== $value));
    }

    /**
     * Squared one-step errors from the first demand on: what is expected is its size times how often it comes.
     *
     * @param list<float> $known
     * @param list<float> $sizes after each value
     * @param list<float> $often after each value, a share of the periods
     */
    private static function squares(array $known, array $sizes, array $often): float
    {
        $squares = 0.0;
        $before = 0.0;
        $begun = false;
        foreach ($known as $i => $value) {
            if ($begun) {
                $error = \floatval($value) - $before;
                $squares += $error * $error;
            } elseif ($value > 0) {
                $begun = true;
            }
            $before = \floatval($sizes[$i]) * \floatval($often[$i]);
        }

        return $squares;
    }

    /**
     * Started like R's forecast::croston: at the first size.
     *
     * @param list<float> $known
     *
     * @return list<float> how much comes when something does, as seen after each value; 0 before the first
     */
    private static function sizes(array $known, float $alpha): array
    {
        $sizes = [];
        $size = null;
        foreach ($known as $value) {
            if ($value > 0) {
                $size = null === $size ? $value : $size + $alpha * ($value - $size);
            }
            $sizes[] = $size ?? 0.0;
        }

        return $sizes;
    }

    /**
     * Started like R's forecast::croston: with an interval counted from before the first value.
     *
     * @param list<float> $known
     *
     * @return list<float> how often something comes, from the periods between, as seen after each value
     */
    private static function intervals(array $known, float $alpha, string $kind): array
    {
        $factor = self::SBA === $kind ? 1 - $alpha / 2 : 1.0;
        $often = [];
        $share = 0.0;
        $interval = null;
        $since = 1;
        foreach ($known as $value) {
            if ($value > 0) {
                $interval = null === $interval ? (float) $since : $interval + $alpha * ($since - $interval);
                $share = $factor / $interval;
                $since = 1;
            } else {
                ++$since;
            }
            $often[] = $share;
        }

        return $often;
    }

    /**
     * @param list<float> $known
     *
     * @return list<float> how often something comes, by a probability that moves in every period
     */
    private static function chances(array $known, float $beta): array
    {
        $often = [];
        $chance = 0.0;
        $came = 0;
        foreach ($known as $i => $value) {
            $comes = $value > 0 ? 1 : 0;
            $came += $comes;
            $often[] = $chance = $i < self::FIRST ? $came / ($i + 1) : $chance + $beta * ($comes - $chance);
        }

        return $often;
    }
}
