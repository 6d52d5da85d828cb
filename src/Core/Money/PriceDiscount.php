<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** What is taken off a price: percents, or an amount of each pack (EN 16931-1:2017, BT-147). */
final readonly class PriceDiscount
{
    /** Decimals a price is kept with. */
    private const SCALE = 6;

    private function __construct(public BigDecimal $percent, public BigDecimal $each)
    {
    }

    public static function none(): self
    {
        return new self(BigDecimal::zero(), BigDecimal::zero());
    }

    /** @throws InvalidValue unless from 0 to 100 */
    public static function percent(BigDecimal $percent): self
    {
        if ($percent->isNegative() || $percent->isGreaterThan(100)) {
            throw InvalidValue::because(sprintf('A discount of %s %% cannot be; expected 0 to 100.', $percent));
        }

        return new self($percent, BigDecimal::zero());
    }

    /** @throws InvalidValue below 0 */
    public static function each(BigDecimal $amount): self
    {
        if ($amount->isNegative()) {
            throw InvalidValue::negative((string) $amount, 'what is taken off each pack');
        }

        return new self(BigDecimal::zero(), $amount);
    }

    /**
     * As it is typed: "5 %", or "0.20" off each pack; nothing for none.
     *
     * @throws InvalidValue
     */
    public static function read(string $typed, Numerals $numerals): self
    {
        $typed = trim($typed);

        return match (true) {
            '' === $typed => self::none(),
            str_ends_with($typed, '%') => self::percent($numerals->decimal(trim($typed, " %\u{a0}"), 4, most: 100)),
            default => self::each($numerals->price($typed)),
        };
    }

    /** As it is typed. */
    public function words(): string
    {
        return match (true) {
            $this->isNone() => '',
            $this->percent->isPositive() => $this->percent->strippedOfTrailingZeros().' %',
            default => (string) $this->each->strippedOfTrailingZeros(),
        };
    }

    public function isNone(): bool
    {
        return $this->percent->isZero() && $this->each->isZero();
    }

    /**
     * The net price (BT-146) of a gross one (BT-148).
     *
     * @throws InvalidValue if more is taken off than it is
     */
    public function off(BigDecimal $price): BigDecimal
    {
        $net = $price
            ->multipliedBy(BigDecimal::of(100)->minus($this->percent))
            ->dividedBy(100, self::SCALE, RoundingMode::HalfUp)
            ->minus($this->each);
        if ($net->isNegative()) {
            throw InvalidValue::because(
                sprintf(
                    'A discount of %s on a price of %s leaves less than nothing.',
                    $this->each->strippedOfTrailingZeros(),
                    $price->strippedOfTrailingZeros(),
                ),
            );
        }

        return $net;
    }
}
