<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Duty;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\Spread;

/**
 * What an order's lines will truly cost: charges are spread by value, and duty is taken of goods and their share of the
 * charges.
 */
final readonly class Costing
{
    /** @param array<int, LineCost> $lines by what was given for a line */
    private function __construct(public array $lines, public Money $goods, public Money $charges, public Money $duty)
    {
    }

    /**
     * @param array<int, array{goods: Money, units: BigDecimal, dutyPercent: BigDecimal, soFar: BigDecimal|null}> $lines
     *      in the home currency
     * @param Money $charges freight and charges less allowances, in the home currency
     */
    public static function of(array $lines, Money $charges): self
    {
        $goods = Money::sum($charges->currency, array_column($lines, 'goods'));
        $shares = $goods->isZero() ? [] : Spread::over(
            $charges,
            array_map(static fn (array $line): BigDecimal => $line['goods']->amount, $lines),
        );
        $costs = [];
        foreach ($lines as $key => $line) {
            $share = $shares[$key] ?? Money::zero($charges->currency);
            $costs[$key] = new LineCost(
                $line['units'],
                $line['goods'],
                $share,
                Duty::on($line['goods'], $share, $line['dutyPercent']),
                $line['soFar'],
            );
        }

        return new self(
            $costs,
            $goods,
            Money::sum($charges->currency, array_map(static fn (LineCost $cost): Money => $cost->charges, $costs)),
            Money::sum($charges->currency, array_map(static fn (LineCost $cost): Money => $cost->duty, $costs)),
        );
    }

    public function total(): Money
    {
        return $this->goods->plus($this->charges)->plus($this->duty);
    }
}
