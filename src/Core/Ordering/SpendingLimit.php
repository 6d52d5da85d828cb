<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;

/** What somebody may order without a yes from above, before tax, in the home currency. */
final readonly class SpendingLimit
{
    private function __construct(public ?BigDecimal $anOrder, public ?BigDecimal $aMonth)
    {
    }

    /**
     * @param BigDecimal|null $anOrder null for none
     * @param BigDecimal|null $aMonth  null for none
     *
     * @throws InvalidValue below 0
     */
    public static function of(?BigDecimal $anOrder, ?BigDecimal $aMonth): self
    {
        foreach ([$anOrder, $aMonth] as $limit) {
            if (true === $limit?->isNegative()) {
                throw InvalidValue::negative((string) $limit, 'a limit of 0 or more, or none');
            }
        }

        return new self($anOrder, $aMonth);
    }

    /** Whether it lets everything through, so that nobody need look what was spent. */
    public function isNone(): bool
    {
        return null === $this->anOrder && null === $this->aMonth;
    }

    /** The wider of two, part by part: for who stands in for somebody. */
    public function orThatOf(self $other): self
    {
        $wider = static fn (?BigDecimal $one, ?BigDecimal $two): ?BigDecimal => null === $one || null === $two
            ? null
            : BigDecimal::max($one, $two);

        return new self($wider($this->anOrder, $other->anOrder), $wider($this->aMonth, $other->aMonth));
    }

    /**
     * Orders to one supplier within a few days are looked at as one, so that splitting gains nothing (common practice,
     * no source).
     *
     * @param BigDecimal  $amount of the order
     * @param SpentLately $spent  what the same person has let through before, without this order
     *
     * @return string|null why it goes too far, in words; null where it does not
     */
    public function objection(BigDecimal $amount, SpentLately $spent): ?string
    {
        $figure = static fn (BigDecimal $amount): string => number_format($amount->toFloat(), 2);
        $together = $amount->plus($spent->toSupplier);
        $month = $amount->plus($spent->inMonth);

        return match (true) {
            null !== $this->anOrder && $amount->isGreaterThan($this->anOrder) => sprintf(
                '%s is over the limit of %s an order',
                $figure($amount),
                $figure($this->anOrder),
            ),
            null !== $this->anOrder && $together->isGreaterThan($this->anOrder) => sprintf(
                'with %s let through to the same supplier in the last %d days it comes to %s, over the limit of %s',
                $figure($spent->toSupplier),
                SpentLately::DAYS,
                $figure($together),
                $figure($this->anOrder),
            ),
            null !== $this->aMonth && $month->isGreaterThan($this->aMonth) => sprintf(
                'it makes %s this month, over the limit of %s a month',
                $figure($month),
                $figure($this->aMonth),
            ),
            default => null,
        };
    }
}
