<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * What is above or below the mean now is so in part next time: a first-order autoregression. Unknown values leave the
 * distance to fade.
 *
 * Source: Yule, "On a Method of Investigating Periodicities in Disturbed Series", Philosophical Transactions of the
 * Royal Society A 226, 1927; fitted by least squares.
 */
final readonly class Autoregression implements Model
{
    /** No further than this, so that every distance fades. */
    private const MOST = 0.98;

    private function __construct(public float $mean, public float $share)
    {
    }

    /** @param list<?float> $demand at least two known values */
    public static function fit(array $demand): self
    {
        $known = array_filter($demand, static fn (?float $value): bool => null !== $value);
        $mean = array_sum($known) / max(1, count($known));
        $cross = $square = 0.0;
        foreach ($known as $t => $value) {
            $before = $demand[$t - 1] ?? null;
            if (null !== $before) {
                $cross += ($value - $mean) * ($before - $mean);
                $square += ($before - $mean) ** 2;
            }
        }

        return new self($mean, $square > 0 ? max(-self::MOST, min(self::MOST, $cross / $square)) : 0.0);
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $rolled = [];
        $distance = 0.0;
        $at = 0;
        foreach ($origins as $origin) {
            for (; $at < $origin; ++$at) {
                $value = $demand[$at] ?? null;
                $distance = null === $value ? $distance * $this->share : $value - $this->mean;
            }
            $means = [];
            $left = $distance;
            for ($h = 0; $h < $ahead; ++$h) {
                $left *= $this->share;
                $means[] = max(0.0, $this->mean + $left);
            }
            $rolled[$origin] = $means;
        }

        return $rolled;
    }
}
