<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** Discounts taken one after the other, each from what the one before left: "10 + 5" is 14.5 %, not 15. */
final readonly class ChainedDiscounts
{
    /** @param list<BigDecimal> $percents */
    private function __construct(public array $percents)
    {
    }

    public static function none(): self
    {
        return new self([]);
    }

    /**
     * @param string $typed percentages with a plus between them, such as "10 + 5 + 2.5"; empty for none
     *
     * @throws InvalidValue unless each is from 0 to below 100, and there are at most six
     */
    public static function read(string $typed, ?Numerals $numerals = null): self
    {
        if ('' === trim($typed)) {
            return self::none();
        }
        $percents = [];
        foreach (explode('+', $typed) as $part) {
            $part = trim(rtrim(trim($part), '%'));
            if (1 !== preg_match('/^\d{1,2}([.,]\d{1,3})?$/', $part)) {
                throw InvalidValue::because(
                    sprintf(
                        '“%s” is not a discount from 0 to 99.999 %%; expected “10”, or “10 + 5” for one after the '
                        .'other.',
                        '' === $part ? $typed : $part,
                    ),
                );
            }
            $percents[] = ($numerals ?? Numerals::with(Numerals::POINT))->decimal($part, 3);
        }
        if (count($percents) > 6) {
            throw InvalidValue::because(sprintf('“%s” is more than six discounts.', $typed));
        }

        return new self(
            array_values(array_filter($percents, static fn (BigDecimal $percent): bool => $percent->isPositive())),
        );
    }

    /** What is left of one, exactly. */
    public function factor(): BigDecimal
    {
        $factor = BigDecimal::one();
        foreach ($this->percents as $percent) {
            $factor = $factor->multipliedBy(BigDecimal::of(100)->minus($percent))->withPointMovedLeft(2);
        }

        return $factor->strippedOfTrailingZeros();
    }

    /** "10 + 5", empty for none. */
    public function label(): string
    {
        return implode(' + ', array_map(strval(...), $this->percents));
    }
}
