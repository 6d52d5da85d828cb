<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Another site's surplus first. */
final readonly class SurplusFirst
{
    /**
     * From one site if one can spare all of it, the one that can spare most; else from as few as possible (common
     * practice, no source: 12 needed, others can spare 7, 5 and 14, take it from the one with 14).
     *
     * @param float             $needed stock units
     * @param array<int, float> $spare  stock units each other site can do without, by site
     *
     * @return array<int, float> stock units to move, by site
     */
    public static function of(float $needed, array $spare): array
    {
        arsort($spare);
        $moves = [];
        foreach ($spare as $site => $units) {
            if ($needed <= 0 || $units <= 0) {
                break;
            }
            $moves[$site] = min($units, $needed);
            $needed -= $moves[$site];
        }

        return $moves;
    }
}
