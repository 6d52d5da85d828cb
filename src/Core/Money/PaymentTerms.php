<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/** When an invoice falls due, and what paying early saves: "2/10 net 30". */
final readonly class PaymentTerms
{
    private function __construct(public int $netDays, public BigDecimal $discountPercent, public int $discountDays)
    {
    }

    /** @throws InvalidValue */
    public static function net(int $days, BigNumber|int|string $discountPercent = 0, int $discountDays = 0): self
    {
        $percent = BigDecimal::of($discountPercent)->strippedOfTrailingZeros();
        if ($days < 0 || $days > 365) {
            throw InvalidValue::because(sprintf('Net %d days is out of range; expected 0 to 365.', $days));
        }
        if ($percent->isNegative() || $percent->isGreaterThanOrEqualTo(100)) {
            throw InvalidValue::because(sprintf('A discount of %s %% is out of range; expected 0 to 99.99.', $percent));
        }
        if (!$percent->isZero() && $discountDays >= $days) {
            throw InvalidValue::because(sprintf('The discount ends after %d days, but payment is due after %d.', $discountDays, $days));
        }

        return new self($days, $percent, $percent->isZero() ? 0 : $discountDays);
    }

    public function label(): string
    {
        $net = 0 === $this->netDays ? 'due on receipt' : 'net '.$this->netDays;

        return $this->discountPercent->isZero() ? $net : sprintf('%s/%d %s', $this->discountPercent, $this->discountDays, $net);
    }

    public function dueOn(\DateTimeImmutable $invoiced): \DateTimeImmutable
    {
        return $invoiced->modify(sprintf('+%d days', $this->netDays));
    }

    public function discountUntil(\DateTimeImmutable $invoiced): ?\DateTimeImmutable
    {
        return $this->discountPercent->isZero() ? null : $invoiced->add(new \DateInterval(sprintf('P%dD', $this->discountDays)));
    }

    public function discounted(Money $total): Money
    {
        return $total->minus($total->percent($this->discountPercent))->rounded();
    }

    /**
     * What not taking the discount costs, as simple interest a year in percent: d/(100 − d) × 365/(net − discount days).
     * Source: any corporate finance text on trade credit; for 2/10 net 30 it is 37.24.
     */
    public function yearlyWorthPercent(): BigDecimal
    {
        if ($this->discountPercent->isZero()) {
            return BigDecimal::zero();
        }

        return $this->discountPercent->multipliedBy(365)->multipliedBy(100)
            ->dividedBy(BigDecimal::of(100)->minus($this->discountPercent)->multipliedBy($this->netDays - $this->discountDays), 2, RoundingMode::HalfUp);
    }
}
