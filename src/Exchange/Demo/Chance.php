<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Random\Engine\Mt19937;

/** Repeatable chance: the same seed always draws the same. */
final readonly class Chance
{
    private Mt19937 $engine;

    public function __construct(string $seed)
    {
        $this->engine = new Mt19937(crc32($seed));
    }

    /** Evenly between 0 and 1. */
    public function share(): float
    {
        /** @var array{1: int} $bits */
        $bits = unpack('V', $this->engine->generate());

        return ($bits[1] + 0.5) / 4294967296.0;
    }

    public function between(int $low, int $high): int
    {
        return $low + (int) floor($this->share() * ($high - $low + 1));
    }

    public function normal(): float
    {
        return sqrt(-2 * log($this->share())) * cos(2 * \M_PI * $this->share());
    }

    public function poisson(float $mean): int
    {
        if ($mean <= 0) {
            return 0;
        }
        if ($mean > 30) {
            return max(0, (int) round($mean + sqrt($mean) * $this->normal()));
        }
        $limit = exp(-$mean);
        $product = $this->share();
        $count = 0;
        while ($product > $limit) {
            $product *= $this->share();
            ++$count;
        }

        return $count;
    }
}
