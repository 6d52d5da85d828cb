<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/**
 * A unit of measure, by its code in UN/ECE Recommendation 20.
 *
 * Conversion factors are exact: the pound and the ounce by the international yard and pound agreement of 1959 as
 * printed in NIST Special Publication 811; the rest are decimal multiples of the SI unit.
 */
enum Unit: string
{
    case Each = 'EA';
    case Pair = 'PR';
    case Set = 'SET';
    case Dozen = 'DZN';
    case Kilogram = 'KGM';
    case Gram = 'GRM';
    case Pound = 'LBR';
    case Ounce = 'ONZ';
    case Litre = 'LTR';
    case Millilitre = 'MLT';
    case Metre = 'MTR';
    case Centimetre = 'CMT';
    case SquareMetre = 'MTK';

    /** @throws InvalidValue if the code is none of these */
    public static function fromCode(string $code): self
    {
        return self::tryFrom(strtoupper(trim($code)))
            ?? throw InvalidValue::because(sprintf('“%s” is not a unit code; expected one of %s.', $code, implode(', ', array_column(self::cases(), 'value'))));
    }

    /** How the unit is written beside a figure. */
    public function symbol(): string
    {
        return match ($this) {
            self::Each => 'pcs',
            self::Pair => 'pairs',
            self::Set => 'sets',
            self::Dozen => 'dozen',
            self::Kilogram => 'kg',
            self::Gram => 'g',
            self::Pound => 'lb',
            self::Ounce => 'oz',
            self::Litre => 'l',
            self::Millilitre => 'ml',
            self::Metre => 'm',
            self::Centimetre => 'cm',
            self::SquareMetre => 'm²',
        };
    }

    /** Whether part of one is a sensible amount to count. */
    public function isDivisible(): bool
    {
        return !in_array($this, [self::Each, self::Pair, self::Set, self::Dozen], true);
    }

    /**
     * How many of the other unit one of this unit is.
     *
     * @throws InvalidValue if the two do not measure the same thing
     */
    public function factorTo(self $other): BigRational
    {
        [$kind, $size] = $this->measure();
        [$otherKind, $otherSize] = $other->measure();
        if ($kind !== $otherKind) {
            throw InvalidValue::because(sprintf('%s cannot be converted to %s: one is a %s, the other a %s.', $this->value, $other->value, $kind, $otherKind));
        }

        return BigRational::of($size)->dividedBy($otherSize);
    }

    /**
     * So much of another unit, in this one, to six decimals.
     *
     * @throws InvalidValue if the two do not measure the same thing
     */
    public function amountOf(BigDecimal $amount, self $other): BigDecimal
    {
        return $other->factorTo($this)->multipliedBy($amount)->toScale(6, RoundingMode::HalfUp)->strippedOfTrailingZeros();
    }

    /** @return array{string, BigDecimal} what it measures, and its size in the base unit of that */
    private function measure(): array
    {
        return match ($this) {
            self::Each => ['count', BigDecimal::one()],
            self::Pair => ['count', BigDecimal::of(2)],
            self::Dozen => ['count', BigDecimal::of(12)],
            self::Set => ['set', BigDecimal::one()],
            self::Kilogram => ['mass', BigDecimal::one()],
            self::Gram => ['mass', BigDecimal::of('0.001')],
            self::Pound => ['mass', BigDecimal::of('0.45359237')],
            self::Ounce => ['mass', BigDecimal::of('0.028349523125')],
            self::Litre => ['volume', BigDecimal::one()],
            self::Millilitre => ['volume', BigDecimal::of('0.001')],
            self::Metre => ['length', BigDecimal::one()],
            self::Centimetre => ['length', BigDecimal::of('0.01')],
            self::SquareMetre => ['area', BigDecimal::one()],
        };
    }
}
