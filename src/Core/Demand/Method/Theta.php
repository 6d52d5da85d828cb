<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * The theta method: simple smoothing that drifts by half the slope of the line through the series.
 *
 * Sources: Assimakopoulos & Nikolopoulos, International Journal of Forecasting 16(4), 2000; in the form of Hyndman &
 * Billah, "Unmasking the Theta Method", International Journal of Forecasting 19(2), 2003, equation 11.
 */
final readonly class Theta implements Model
{
    private function __construct(private Smoothing $smoothing, private float $drift)
    {
    }

    /** @param list<?float> $demand */
    public static function fit(array $demand, Smoothing $simple): self
    {
        $sumX = $sumY = $xy = $xx = 0.0;
        $count = 0;
        foreach ($demand as $t => $value) {
            if (null !== $value) {
                $sumX += $t;
                $sumY += $value;
                $xy += $t * $value;
                $xx += $t * $t;
                ++$count;
            }
        }
        $spread = $count * $xx - $sumX * $sumX;

        return new self($simple, $spread > 0 ? ($count * $xy - $sumX * $sumY) / $spread / 2 : 0.0);
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $alpha = max(0.01, $this->smoothing->alpha);
        $rolled = [];
        foreach ($this->smoothing->roll($demand, $origins, $ahead) as $origin => $means) {
            $lag = (1 - (1 - $alpha) ** $origin) / $alpha;
            foreach ($means as $h => $mean) {
                $means[$h] = max(0.0, $mean + $this->drift * ($h + $lag));
            }
            $rolled[$origin] = $means;
        }

        return $rolled;
    }
}
