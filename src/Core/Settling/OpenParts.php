<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;

/**
 * What is still to be paid of an invoice, in the parts its terms have. What was paid counts for the part that is due
 * first (common practice, no source).
 */
final readonly class OpenParts
{
    /**
     * @param non-empty-list<Payment> $parts by day, each with what is left of it
     * @param bool                    $begun whether something of the first was paid already
     */
    private function __construct(public array $parts, public bool $begun)
    {
    }

    /**
     * @param PaymentTerms|null $terms of the invoice itself, see PaymentTerms::afterDeposit(); null for all at once
     * @param Money             $total owed, with tax
     * @param Money             $paid  so far, no more than that
     */
    public static function of(
        ?PaymentTerms $terms,
        Money $total,
        \DateTimeImmutable $invoiced,
        Money $paid,
    ): self {
        $agreed = ($terms ?? PaymentTerms::net(0))->payments($total, $invoiced, $invoiced);
        $open = [];
        $begun = false;
        foreach ($agreed as $part) {
            if ($paid->amount->isPositive() && $paid->amount->isGreaterThanOrEqualTo($part->amount->amount)) {
                $paid = $paid->minus($part->amount);
                continue;
            }
            $begun = $begun || $paid->amount->isPositive();
            $open[] = new Payment($part->day, $part->amount->minus($paid), $part->percent);
            $paid = $paid->multipliedBy(0);
        }
        $last = $agreed[count($agreed) - 1];

        return new self(
            [] === $open ? [new Payment($last->day, $total->multipliedBy(0), BigDecimal::zero())] : $open,
            $begun,
        );
    }

    /** What is due by a day; before any of it is, the part that is due first. */
    public function dueBy(\DateTimeImmutable $day): Money
    {
        $due = $this->parts[0]->amount;
        foreach (array_slice($this->parts, 1) as $part) {
            if ($part->day->format('Y-m-d') <= $day->format('Y-m-d')) {
                $due = $due->plus($part->amount);
            }
        }

        return $due;
    }

    public function left(): Money
    {
        return Money::sum(
            $this->parts[0]->amount->currency,
            array_map(static fn (Payment $part): Money => $part->amount, $this->parts),
        );
    }
}
