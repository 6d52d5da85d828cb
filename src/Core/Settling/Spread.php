<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;

/**
 * Shares an amount out by weights so that the shares add up to it to the last cent: each gets its share rounded towards
 * zero, and the cents left go one by one to those who lost most by that, the first of equals first.
 *
 * Source: method of largest remainders with the Hare quota (Balinski and Young, Fair Representation, 2nd ed. 2001,
 * chapter 3), used on cents.
 */
final readonly class Spread
{
    /**
     * @template K of array-key
     *
     * @param array<K, BigDecimal> $weights 0 or more each; of one kind, such as kilograms
     *
     * @return array<K, Money> in the order of the weights
     *
     * @throws InvalidValue if a weight is below 0, or all are 0
     */
    public static function over(Money $amount, array $weights): array
    {
        $sum = BigDecimal::zero();
        foreach ($weights as $weight) {
            if ($weight->isNegative()) {
                throw InvalidValue::negative((string) $weight, 'weights of 0 or more to spread by');
            }
            $sum = $sum->plus($weight);
        }
        if ($sum->isZero()) {
            throw InvalidValue::because(
                sprintf('%s cannot be spread: nothing of what it would go by is above 0.', $amount->rounded()->amount),
            );
        }
        $amount = $amount->rounded();
        $cent = BigDecimal::ofUnscaledValue($amount->amount->isNegative() ? -1 : 1, $amount->amount->getScale());
        [$shares, $lost, $left] = [[], [], $amount->amount];
        foreach ($weights as $key => $weight) {
            $exact = $amount->amount->multipliedBy($weight);
            $shares[$key] = $exact->dividedBy($sum, $amount->amount->getScale(), RoundingMode::Down);
            $lost[$key] = $exact->minus($shares[$key]->multipliedBy($sum))->abs();
            $left = $left->minus($shares[$key]);
        }
        // Sorting is stable: of equals the first stays first.
        uasort($lost, static fn (BigDecimal $a, BigDecimal $b): int => $b->compareTo($a));
        foreach (array_keys($lost) as $key) {
            if ($left->isZero()) {
                break;
            }
            $shares[$key] = $shares[$key]->plus($cent);
            $left = $left->minus($cent);
        }

        return array_map(static fn (BigDecimal $share): Money => Money::of($share, $amount->currency), $shares);
    }
}
