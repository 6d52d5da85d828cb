<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/** How many of a foreign currency one of the home currency buys, on a day. */
final readonly class ExchangeRate
{
    private function __construct(public Currency $home, public Currency $foreign, public BigDecimal $foreignForOne)
    {
    }

    /** @throws InvalidValue unless the rate is above zero */
    public static function of(
        Currency|string $home,
        Currency|string $foreign,
        BigNumber|int|string $foreignForOne,
    ): self {
        $rate = BigDecimal::of($foreignForOne);
        if (!$rate->isPositive()) {
            throw InvalidValue::because(sprintf('An exchange rate of %s is impossible; expected more than 0.', $rate));
        }

        return new self(
            is_string($home) ? Currency::of($home) : $home,
            is_string($foreign) ? Currency::of($foreign) : $foreign,
            $rate,
        );
    }

    /** In the home currency, to six decimals. */
    public function toHome(Money $foreign): Money
    {
        if ($foreign->currency->code !== $this->foreign->code) {
            throw InvalidValue::because(
                sprintf('This rate converts %s, not %s.', $this->foreign->code, $foreign->currency->code),
            );
        }

        return Money::of($foreign->amount->dividedBy($this->foreignForOne, 6, RoundingMode::HalfUp), $this->home);
    }
}
