<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * How demand comes: how often, and how even its sizes are.
 *
 * Source: Syntetos, Boylan & Croston, "On the Categorization of Demand Patterns", Journal of the Operational Research
 * Society 56, 2005: classes at a mean interval of 1.32 periods and a squared coefficient of variation of 0.49.
 */
enum Pattern: string
{
    case Smooth = 'smooth';
    case Erratic = 'erratic';
    case Intermittent = 'intermittent';
    case Lumpy = 'lumpy';

    private const INTERVAL = 1.32;
    private const VARIATION = 0.49;

    /** @param list<?float> $demand one value a period, null where unknown */
    public static function of(array $demand): self
    {
        [$interval, $variation] = self::figures($demand);

        return match (true) {
            $interval < self::INTERVAL => $variation < self::VARIATION ? self::Smooth : self::Erratic,
            default => $variation < self::VARIATION ? self::Intermittent : self::Lumpy,
        };
    }

    public function comesNowAndThen(): bool
    {
        return self::Intermittent === $this || self::Lumpy === $this;
    }

    /**
     * @param list<?float> $demand
     *
     * @return array{float, float} average demand interval (ADI) in periods, squared coefficient of variation (CV²) of
     *      the sizes
     */
    public static function figures(array $demand): array
    {
        $periods = 0;
        $sizes = [];
        foreach ($demand as $value) {
            if (null !== $value) {
                ++$periods;
                if ($value > 0) {
                    $sizes[] = $value;
                }
            }
        }
        if ([] === $sizes) {
            return [INF, 0.0];
        }
        $mean = array_sum($sizes) / count($sizes);
        $variance = array_sum(
            array_map(static fn (float $size): float => ($size - $mean) ** 2, $sizes),
        ) / count($sizes);

        return [$periods / count($sizes), $variance / $mean ** 2];
    }
}
