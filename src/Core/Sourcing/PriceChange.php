<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;

/** By how much a price has moved against the last one paid. */
final readonly class PriceChange
{
    /** A smaller move than this is not worth a word (common practice, no source). */
    private const WORTH_SAYING = 0.5;
    /** So many times the last price, or so small a part of it, looks like a slip (common practice, no source). */
    private const DOUBTFUL = 4;

    /** In percent, above zero for dearer; null where there was no price before, or it hardly moved. */
    public static function percent(BigDecimal $now, ?BigDecimal $last): ?float
    {
        if (null === $last || !$last->isPositive()) {
            return null;
        }
        $percent = (100 * $now->minus($last)->toFloat()) / $last->toFloat();

        return abs($percent) >= self::WORTH_SAYING ? $percent : null;
    }

    /** Why a price looks like a slip, in words; null where it does not. */
    public static function doubt(BigDecimal $now, ?BigDecimal $last): ?string
    {
        if ($now->isZero()) {
            return 'the price is 0';
        }
        if (null === $last || !$last->isPositive()) {
            return null;
        }
        $times = $now->toFloat() / $last->toFloat();

        return match (true) {
            $times >= self::DOUBTFUL => sprintf('%s times the last price paid', self::about($times)),
            $times <= 1 / self::DOUBTFUL => sprintf('%s %% of the last price paid', self::about(100 * $times)),
            default => null,
        };
    }

    private static function about(float $times): string
    {
        return number_format($times, $times < 10 && abs($times - round($times)) >= 0.05 ? 1 : 0);
    }
}
