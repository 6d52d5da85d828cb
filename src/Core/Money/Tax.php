<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** At what rate, and why, a line of a document is taxed. */
final readonly class Tax
{
    private function __construct(public TaxCategory $category, public BigDecimal $percent)
    {
    }

    /**
     * Source: EN 16931-1:2017, BR-S-05, BR-Z-05, BR-E-05, BR-AE-05, BR-IC-05, BR-G-05 and BR-O-05: a standard rate is
     * above 0, every other category has none.
     *
     * @param BigNumber|int|string $percent such as 23
     *
     * @throws InvalidValue
     */
    public static function of(TaxCategory $category, BigNumber|int|string $percent = 0): self
    {
        $percent = BigDecimal::of($percent);
        if ($percent->isNegative() || $percent->isGreaterThan(100)) {
            throw InvalidValue::because(sprintf('A tax of %s %% cannot be; expected 0 to 100.', $percent));
        }
        if ((TaxCategory::Standard === $category) !== $percent->isPositive()) {
            throw InvalidValue::because(
                TaxCategory::Standard === $category
                    ? 'What is taxed needs a rate above 0.'
                    : sprintf('What is %s has no rate, yet %s %% stands there.', $category->words(), $percent),
            );
        }

        return new self($category, $percent->strippedOfTrailingZeros());
    }

    /**
     * Where only a rate is known.
     *
     * @param TaxCategory $untaxed what a rate of 0 stands for
     *
     * @throws InvalidValue
     */
    public static function percent(
        BigNumber|int|string $percent,
        TaxCategory $untaxed = TaxCategory::ZeroRated,
    ): self {
        $percent = BigDecimal::of($percent);
        $none = TaxCategory::Standard === $untaxed ? TaxCategory::ZeroRated : $untaxed;

        return self::of($percent->isZero() ? $none : TaxCategory::Standard, $percent);
    }

    /**
     * As it is typed: a rate such as "23" or "23 %", or why there is none, such as "reverse charge" or its code "AE".
     *
     * @throws InvalidValue
     */
    public static function read(string $typed, Numerals $numerals): self
    {
        $typed = trim($typed);
        foreach (TaxCategory::untaxed() as $category) {
            if (0 === strcasecmp($typed, $category->value) || 0 === strcasecmp($typed, $category->words())) {
                return self::of($category);
            }
        }
        $rate = rtrim($typed, " %\u{a0}");
        if (1 !== preg_match('/^[\d.,]+$/', $rate)) {
            throw InvalidValue::because(
                sprintf(
                    '“%s” is no tax; expected a rate such as 23, or one of: %s.',
                    $typed,
                    implode(
                        '; ',
                        array_map(static fn (TaxCategory $one): string => $one->words(), TaxCategory::untaxed()),
                    ),
                ),
            );
        }

        return self::percent($numerals->decimal($rate, 2, most: 100));
    }

    /** The same for all that is summed together. */
    public function key(): string
    {
        return $this->category->value.' '.$this->percent;
    }

    /** As in "23 %" or "reverse charge". */
    public function words(): string
    {
        return TaxCategory::Standard === $this->category ? $this->percent.' %' : $this->category->words();
    }
}
