<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** The last value again; or, with a period above one, the value of one period ago. */
final readonly class Naive implements Model
{
    public function __construct(private int $period = 1)
    {
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $rolled = [];
        foreach ($origins as $origin) {
            $means = [];
            for ($h = 0; $h < $ahead; ++$h) {
                $at = $origin - $this->period + ($h % $this->period);
                while ($at >= 0 && !isset($demand[$at])) {
                    $at -= $this->period;
                }
                $means[] = $at >= 0 ? (float) $demand[$at] : 0.0;
            }
            $rolled[$origin] = $means;
        }

        return $rolled;
    }
}
