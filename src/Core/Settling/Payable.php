<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;

/**
 * An invoice as money to be paid: how much, when, and whether the discount for paying early is still to be had. Who
 * paid a part has no discount for the rest (common practice, no source).
 */
final readonly class Payable
{
    /** Days that money may be under way: who sent it in time has paid in time (common practice, no source). */
    private const UNDER_WAY = 4;

    /** What is still to be paid, by the days its terms have. */
    public OpenParts $open;

    /**
     * @param PaymentTerms|null $terms of the invoice itself, see PaymentTerms::afterDeposit(); null for all at once
     * @param Money             $owed  all of it, with tax
     * @param Money|null        $paid  so far; null for nothing yet
     */
    public function __construct(
        public ?PaymentTerms $terms,
        public Money $owed,
        private \DateTimeImmutable $invoiced,
        private ?Money $paid,
    ) {
        $this->open = OpenParts::of($terms, $owed, $invoiced, $paid ?? $owed->multipliedBy(0));
    }

    /** Whether something was paid of it; of what is still to be paid, that is a part. */
    public function isPartPaid(): bool
    {
        return null !== $this->paid;
    }

    /** The day the last of it is due. */
    public function dueOn(): \DateTimeImmutable
    {
        return $this->terms?->dueOn($this->invoiced) ?? $this->invoiced;
    }

    /**
     * When what is left is best paid: early where the discount gains more than keeping the money would, else part by
     * part when each is due.
     *
     * @param float $yearlyPercent what the owner's money costs
     *
     * @return non-empty-list<Payment> by day
     */
    public function best(\DateTimeImmutable $today, float $yearlyPercent): array
    {
        $best = null !== $this->paid
            ? null
            : $this->terms?->payments($this->owed, $this->invoiced, $this->invoiced, $yearlyPercent)[0];

        return true === $best?->early && $best->day >= $today ? [$best] : $this->open->parts;
    }

    /**
     * What is to be paid on a day: all of it less the discount for paying early, where it is still to be had, else the
     * instalments due by then, the next one at least.
     */
    public function toPayOn(\DateTimeImmutable $day): Money
    {
        return $this->discountedUntil($day) ?? $this->open->dueBy($day);
    }

    /** All that is left on a day, whatever is due of it by then. */
    public function leftOn(\DateTimeImmutable $day): Money
    {
        return $this->discountedUntil($day) ?? $this->open->left();
    }

    /** All that is left when that much is paid on a day: with the discount where it was sent in time, else without. */
    public function leftFor(Money $amount, \DateTimeImmutable $on): Money
    {
        $early = $this->discountedUntil($on->modify(sprintf('-%d days', self::UNDER_WAY)));

        return true === $early?->amount->isEqualTo($amount->amount) ? $early : $this->leftOn($on);
    }

    /** What a payment of that much is set beside: all that is left, unless it is the instalments due, to the cent. */
    public function expectedOf(Money $amount, \DateTimeImmutable $on): Money
    {
        return count($this->open->parts) > 1 && $this->open->dueBy($on)->amount->isEqualTo($amount->amount)
            ? $amount
            : $this->leftFor($amount, $on);
    }

    /** The sum less the discount, where it is to be had on that day. */
    private function discountedUntil(\DateTimeImmutable $day): ?Money
    {
        $until = $this->terms?->discountUntil($this->invoiced);
        $isToBeHad = null === $this->paid && null !== $this->terms && null !== $until
            && $day->format('Y-m-d') <= $until->format('Y-m-d');

        return $isToBeHad ? $this->terms->discounted($this->owed) : null;
    }
}
