<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Money;

/** What an order comes to. Each line is rounded to the minor unit, the tax once on their sum. */
final readonly class OrderTotals
{
    private function __construct(public Money $goods, public Money $tax, public Money $total)
    {
    }

    /**
     * @param list<array{BigDecimal, BigDecimal}> $lines packs and price of one pack
     */
    public static function of(array $lines, BigDecimal $taxPercent, Currency $currency): self
    {
        $goods = Money::sum(
            $currency,
            array_map(static fn (array $line): Money => self::line($line[0], $line[1], $currency), $lines),
        )->rounded();
        $tax = $goods->percent($taxPercent)->rounded();

        return new self($goods, $tax, $goods->plus($tax));
    }

    public static function line(BigDecimal $packs, BigDecimal $price, Currency $currency): Money
    {
        return Money::of($packs->multipliedBy($price), $currency)->rounded();
    }
}
