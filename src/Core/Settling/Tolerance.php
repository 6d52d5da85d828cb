<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;

/** How much more than agreed passes without asking: no more than a percentage, and no more than an amount a line. */
final readonly class Tolerance
{
    private function __construct(public BigDecimal $percent, public BigDecimal $amount)
    {
    }

    /** A percent, up to five of the currency a line (common practice, no source). */
    public static function usual(): self
    {
        return self::of('1', '5');
    }

    /**
     * @param BigDecimal|int|string $percent of the agreed price, 0 to 20
     * @param BigDecimal|int|string $amount  of a line in the invoice's currency, 0 or more
     *
     * @throws InvalidValue
     */
    public static function of(BigDecimal|int|string $percent, BigDecimal|int|string $amount): self
    {
        $percent = BigDecimal::of($percent);
        $amount = BigDecimal::of($amount);
        if ($percent->isNegative() || $percent->isGreaterThan(20)) {
            throw InvalidValue::because(sprintf('A tolerance of %s %%; expected 0 to 20.', $percent));
        }
        if ($amount->isNegative()) {
            throw InvalidValue::negative((string) $amount, 'a tolerance of 0 or more');
        }

        return new self($percent, $amount);
    }

    /**
     * @param BigDecimal $agreed price of one
     * @param BigDecimal $asked  price of one
     * @param BigDecimal $packs  of the line
     */
    public function allows(BigDecimal $agreed, BigDecimal $asked, BigDecimal $packs): bool
    {
        $more = $asked->minus($agreed);

        return !$more->isPositive()
            || ($more->multipliedBy(100)->isLessThanOrEqualTo($agreed->multipliedBy($this->percent))
                && $more->multipliedBy($packs)->isLessThanOrEqualTo($this->amount));
    }
}
