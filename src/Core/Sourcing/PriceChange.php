<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;

/** By how much a price has moved against the last one paid. */
final readonly class PriceChange
{
    /** A smaller move than this is not worth a word (common practice, no source). */
    private const WORTH_SAYING = 0.5;

    /** In percent, above zero for dearer; null where there was no price before, or it hardly moved. */
    public static function percent(BigDecimal $now, ?BigDecimal $last): ?float
    {
        if (null === $last || !$last->isPositive()) {
            return null;
        }
        $percent = 100 * ($now->toFloat() / $last->toFloat() - 1);

        return abs($percent) >= self::WORTH_SAYING ? $percent : null;
    }
}
