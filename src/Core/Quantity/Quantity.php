<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/** So much of a unit, to a thousandth. May be below zero: a correction takes stock away. */
final readonly class Quantity
{
    public const SCALE = 3;

    private function __construct(public BigDecimal $amount, public Unit $unit)
    {
    }

    /** @throws InvalidValue if the amount has more than three decimals */
    public static function of(BigNumber|int|string $amount, Unit $unit): self
    {
        $amount = BigDecimal::of($amount)->strippedOfTrailingZeros();
        if ($amount->getScale() > self::SCALE) {
            throw InvalidValue::because(sprintf('“%s” has more than three decimals.', $amount));
        }

        return new self($amount, $unit);
    }

    public static function zero(Unit $unit): self
    {
        return new self(BigDecimal::zero(), $unit);
    }

    public function plus(self $other): self
    {
        return new self($this->amount->plus($this->sameUnit($other))->strippedOfTrailingZeros(), $this->unit);
    }

    public function minus(self $other): self
    {
        return new self($this->amount->minus($this->sameUnit($other))->strippedOfTrailingZeros(), $this->unit);
    }

    /** In another unit of the same kind, rounded half up to a thousandth. */
    public function in(Unit $unit): self
    {
        return new self(
            $this->unit
                ->factorTo($unit)
                ->multipliedBy($this->amount)
                ->toScale(self::SCALE, RoundingMode::HalfUp)
                ->strippedOfTrailingZeros(),
            $unit,
        );
    }

    private function sameUnit(self $other): BigDecimal
    {
        if ($other->unit !== $this->unit) {
            throw InvalidValue::because(
                sprintf('%s and %s cannot be added; convert one first.', $this->unit->value, $other->unit->value),
            );
        }

        return $other->amount;
    }
}
