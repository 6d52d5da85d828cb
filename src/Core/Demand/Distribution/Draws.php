<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** Random draws that come the same again from the same seed. */
final class Draws
{
    private readonly Randomizer $random;
    private ?float $spare = null;

    public function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    /** From 0 up to, not including, 1. */
    public function share(): float
    {
        return $this->random->getInt(0, (1 << 53) - 1) / (1 << 53);
    }

    /** From 0 up to, not including, the number given. */
    public function below(int $number): int
    {
        return $this->random->getInt(0, $number - 1);
    }

    public function of(Distribution $distribution): float
    {
        return match (true) {
            $distribution instanceof Normal => $distribution->mean() + $distribution->deviation() * $this->normal(),
            $distribution instanceof Gamma => $this->gamma($distribution->mean(), $distribution->deviation()),
            default => $distribution->quantile(max(1e-15, $this->share())),
        };
    }

    /** Source: Box & Muller, Annals of Mathematical Statistics 29(2), 1958. */
    private function normal(): float
    {
        if (null !== $this->spare) {
            $value = $this->spare;
            $this->spare = null;

            return $value;
        }
        $radius = sqrt(-2 * log(1 - $this->share()));
        $angle = 2 * \M_PI * $this->share();
        $this->spare = $radius * sin($angle);

        return $radius * cos($angle);
    }

    /**
     * Source: Marsaglia & Tsang, "A Simple Method for Generating Gamma Variables", ACM Transactions on Mathematical
     * Software 26(3), 2000.
     */
    private function gamma(float $mean, float $deviation): float
    {
        $shape = ($mean / $deviation) ** 2;
        $scale = $deviation ** 2 / $mean;
        $boost = $shape < 1 ? (1 - $this->share()) ** (1 / $shape) : 1.0;
        $d = ($shape < 1 ? $shape + 1 : $shape) - 1 / 3;
        $c = 1 / sqrt(9 * $d);
        do {
            $x = $this->normal();
            $v = (1 + $c * $x) ** 3;
        } while ($v <= 0 || log(1 - $this->share()) >= 0.5 * $x * $x + $d - $d * $v + $d * log(max($v, 1e-300)));

        return $d * $v * $scale * $boost;
    }
}
