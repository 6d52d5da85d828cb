<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/** An amount in a currency, kept exactly; rounded to the currency's minor unit only where it is asked for. */
final readonly class Money
{
    private function __construct(public BigDecimal $amount, public Currency $currency)
    {
    }

    /** @throws InvalidValue if the currency is unknown */
    public static function of(BigNumber|int|string $amount, Currency|string $currency): self
    {
        return new self(BigDecimal::of($amount), is_string($currency) ? Currency::of($currency) : $currency);
    }

    public static function zero(Currency|string $currency): self
    {
        return self::of(0, $currency);
    }

    /**
     * @param iterable<self> $amounts all in the currency given
     */
    public static function sum(Currency|string $currency, iterable $amounts): self
    {
        $sum = self::zero($currency);
        foreach ($amounts as $amount) {
            $sum = $sum->plus($amount);
        }

        return $sum;
    }

    public function plus(self $other): self
    {
        return new self($this->amount->plus($this->sameCurrency($other)), $this->currency);
    }

    public function minus(self $other): self
    {
        return new self($this->amount->minus($this->sameCurrency($other)), $this->currency);
    }

    public function multipliedBy(BigNumber|int|string $factor): self
    {
        return new self($this->amount->multipliedBy($factor), $this->currency);
    }

    /** Rounded half up to the currency's minor unit. */
    public function rounded(): self
    {
        return new self($this->amount->toScale($this->currency->decimals, RoundingMode::HalfUp), $this->currency);
    }

    public function percent(BigNumber|int|string $percent): self
    {
        return new self($this->amount->multipliedBy($percent)->withPointMovedLeft(2), $this->currency);
    }

    public function isLessThan(self $other): bool
    {
        return $this->amount->isLessThan($this->sameCurrency($other));
    }

    public function isGreaterThan(self $other): bool
    {
        return $this->amount->isGreaterThan($this->sameCurrency($other));
    }

    public function isZero(): bool
    {
        return $this->amount->isZero();
    }

    private function sameCurrency(self $other): BigDecimal
    {
        if ($other->currency->code !== $this->currency->code) {
            throw InvalidValue::because(
                sprintf('%s and %s cannot be mixed; convert one first.', $this->currency->code, $other->currency->code),
            );
        }

        return $other->amount;
    }
}
