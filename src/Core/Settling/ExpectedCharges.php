<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Money\Duty;
use TallBarrel\Core\Money\Money;

/**
 * What is put on goods when they come, before anybody has billed it: of an order’s freight and other charges the part
 * that goes with what came of it, duty on goods and carriage, and for handling a percentage and an amount. Costs of
 * bringing goods to where they are belong to their cost, and are estimated until they are known (IAS 2 “Inventories”,
 * paragraphs 10 and 11; IAS 37, paragraph 11, on accruals).
 */
final readonly class ExpectedCharges
{
    private const SCALE = 12;
    /** So often something was invoiced before experience counts. */
    private const TIMES = 3;
    private const MOST = 3;

    /**
     * @template K of array-key
     *
     * @param array<K, array{value: Money, dutyPercent: BigDecimal}> $goods   what came of one order, home currency
     * @param Money                                                  $ordered the goods of the whole order
     * @param Money                                                  $freight of the whole order
     * @param Money                                                  $others  other charges of the whole order
     *
     * @return array<string, array<K, Money>> shares by line, by the value of a ChargeKind; none that is nothing
     */
    public static function ofOrder(array $goods, Money $ordered, Money $freight, Money $others): array
    {
        $zero = Money::zero($ordered->currency);
        $values = array_map(static fn (array $one): BigDecimal => $one['value']->amount, $goods);
        $came = Money::sum($ordered->currency, array_column($goods, 'value'));
        if ($came->isZero()) {
            return [];
        }
        $part = $came->isGreaterThan($ordered)
            ? BigDecimal::one()
            : $came->amount->dividedBy($ordered->amount, self::SCALE, RoundingMode::HalfUp);
        $shares = array_map(
            static fn (Money $whole): array => Spread::over($whole->multipliedBy($part)->rounded(), $values),
            [ChargeKind::Freight->value => $freight, ChargeKind::Other->value => $others],
        );
        $duty = [];
        foreach ($goods as $key => $one) {
            $carriage = Money::sum($ordered->currency, array_column($shares, $key));
            $duty[$key] = Duty::on($one['value'], $carriage, $one['dutyPercent']);
        }
        $shares[ChargeKind::Duty->value] = $duty;

        return array_filter(
            $shares,
            static fn (array $each): bool => Money::sum($zero->currency, array_values($each))->isGreaterThan($zero),
        );
    }

    /**
     * What experience makes of an expectation: after a few times what it came to beside what was reckoned with, never
     * more than three times as much or a third (a rule of ours, no source).
     *
     * @param BigDecimal $reckoned for as many times, home currency
     * @param BigDecimal $came     the same, as it was invoiced
     *
     * @return BigDecimal to multiply an expectation with; 1 after fewer times
     */
    public static function factor(int $times, BigDecimal $reckoned, BigDecimal $came): BigDecimal
    {
        return $times < self::TIMES || !$reckoned->isPositive()
            ? BigDecimal::one()
            : $came->dividedBy($reckoned, self::SCALE, RoundingMode::HalfUp)->clamp(
                BigDecimal::one()->dividedBy(self::MOST, self::SCALE, RoundingMode::HalfUp),
                BigDecimal::of(self::MOST),
            );
    }

    /** The same of an amount, to the cent. */
    public static function corrected(Money $expected, int $times, BigDecimal $reckoned, BigDecimal $came): Money
    {
        return $expected->multipliedBy(self::factor($times, $reckoned, $came))->rounded();
    }

    /**
     * @template K of array-key
     *
     * @param array<K, Money> $goods   what came, home currency
     * @param BigDecimal      $percent of the value of each
     * @param Money           $each    of a receipt, shared by value
     *
     * @return array<K, Money>
     */
    public static function handling(array $goods, BigDecimal $percent, Money $each): array
    {
        $values = array_map(static fn (Money $value): BigDecimal => $value->amount, $goods);
        $shares = Money::sum($each->currency, array_values($goods))->isZero() ? [] : Spread::over($each, $values);

        foreach ($shares as $key => $share) {
            $shares[$key] = $share->plus($goods[$key]->percent($percent)->rounded());
        }

        return $shares;
    }
}
