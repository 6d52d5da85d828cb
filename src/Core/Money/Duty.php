<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;

/**
 * Customs duty is taken of goods and their carriage together (common practice where imports are valued with their
 * carriage, as in Regulation (EU) 952/2013, article 71(1)(e)).
 */
final readonly class Duty
{
    public static function on(Money $goods, Money $carriage, BigDecimal $percent): Money
    {
        return $goods->plus($carriage)->percent($percent)->rounded();
    }
}
