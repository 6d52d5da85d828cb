<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/**
 * When an order is paid: so many days after the invoice or after the end of its month, less something for paying early
 * ("2/10 net 30"), with part of it when ordering, or in instalments.
 */
final readonly class PaymentTerms
{
    /** @param list<array{BigDecimal, int}> $instalments percent of the total, and days after the invoice */
    private function __construct(
        public int $netDays,
        public BigDecimal $discountPercent,
        public int $discountDays,
        public bool $endOfMonth,
        public BigDecimal $depositPercent,
        public array $instalments,
    ) {
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
            throw InvalidValue::because(
                sprintf('The discount ends after %d days, but payment is due after %d.', $discountDays, $days),
            );
        }

        return new self($days, $percent, $percent->isZero() ? 0 : $discountDays, false, BigDecimal::zero(), []);
    }

    /** The net days begin at the end of the invoice's month (common practice, no source). */
    public function fromEndOfMonth(bool $endOfMonth = true): self
    {
        return new self(
            $this->netDays,
            $this->discountPercent,
            $this->discountDays,
            $endOfMonth,
            $this->depositPercent,
            $this->instalments,
        );
    }

    /** @throws InvalidValue unless from 0 to 100 */
    public function withDeposit(BigNumber|int|string $percent): self
    {
        $percent = BigDecimal::of($percent)->strippedOfTrailingZeros();
        if ($percent->isNegative() || $percent->isGreaterThan(100)) {
            throw InvalidValue::because(sprintf('A deposit of %s %% is out of range; expected 0 to 100.', $percent));
        }

        return new self(
            $this->netDays,
            $this->discountPercent,
            $this->discountDays,
            $this->endOfMonth,
            $percent,
            $this->instalments,
        );
    }

    /**
     * Of an invoice, from which the deposit is taken off: what is left is paid at once, or in instalments that keep
     * their weight among each other, so that 40@30 30@60 after a deposit of 30 % are 57.14 % and the rest.
     */
    public function afterDeposit(): self
    {
        $left = BigDecimal::of(100)->minus($this->depositPercent);
        $parts = $this->depositPercent->isZero() || $left->isZero() ? $this->instalments : array_map(
            static fn (array $part): array => [
                $part[0]->multipliedBy(100)->dividedBy($left, 10, RoundingMode::HalfUp),
                $part[1],
            ],
            $this->instalments,
        );

        return new self(
            $this->netDays,
            $this->discountPercent,
            $this->discountDays,
            $this->endOfMonth,
            BigDecimal::zero(),
            $parts,
        );
    }

    /** What of a sum is paid when ordering. */
    public function deposit(Money $total): Money
    {
        return self::depositOf($total, $this->depositPercent);
    }

    /** The same of a percentage that is known without the rest of the terms. */
    public static function depositOf(Money $total, BigDecimal $percent): Money
    {
        return $total->percent($percent)->rounded();
    }

    /**
     * What is left after the deposit, in parts.
     *
     * @param string $typed percent "@" days after the invoice, such as "50@30 50@60"; empty for all at once
     *
     * @throws InvalidValue unless they add up, with the deposit, to 100
     */
    public function inInstalments(string $typed): self
    {
        $parts = [];
        $sum = $this->depositPercent;
        foreach (preg_split('/\s+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^(\d{1,3}(?:\.\d{1,2})?)@(\d{1,3})$/', $part, $found)) {
                throw InvalidValue::because(
                    sprintf(
                        '“%s” is not an instalment; expected percent, “@”, days after the invoice: 50@30 50@60.',
                        $part,
                    ),
                );
            }
            $parts[] = [BigDecimal::of($found[1])->strippedOfTrailingZeros(), (int) $found[2]];
            $sum = $sum->plus($found[1]);
        }
        if ([] !== $parts && !$sum->isEqualTo(100)) {
            throw InvalidValue::because(
                sprintf(
                    'The deposit and the instalments “%s” come to %s %%; expected 100.',
                    trim($typed),
                    $sum->strippedOfTrailingZeros(),
                ),
            );
        }

        return new self(
            $this->netDays,
            $this->discountPercent,
            $this->discountDays,
            $this->endOfMonth,
            $this->depositPercent,
            $parts,
        );
    }

    public function label(): string
    {
        $net =
            0 === $this->netDays && !$this->endOfMonth
                ? 'due on receipt'
                : 'net '.$this->netDays.($this->endOfMonth ? ' after the month’s end' : '');
        if ([] !== $this->instalments) {
            $net = implode(
                ', ',
                array_map(
                    static fn (array $part): string => sprintf('%s %% after %d d', $part[0], $part[1]),
                    $this->instalments,
                ),
            );
        }
        $net = $this->discountPercent->isZero()
            ? $net
            : sprintf('%s/%d %s', $this->discountPercent, $this->discountDays, $net);

        return $this->depositPercent->isZero() ? $net : sprintf('%s %% when ordering, %s', $this->depositPercent, $net);
    }

    public function instalmentsLabel(): string
    {
        return implode(' ', array_map(static fn (array $part): string => $part[0].'@'.$part[1], $this->instalments));
    }

    /** The day the last of it is due. */
    public function dueOn(\DateTimeImmutable $invoiced): \DateTimeImmutable
    {
        return $this->after(
            $invoiced,
            [] === $this->instalments ? $this->netDays : max(array_column($this->instalments, 1)),
        );
    }

    private function after(\DateTimeImmutable $invoiced, int $days): \DateTimeImmutable
    {
        return ($this->endOfMonth ? $invoiced->modify('last day of this month') : $invoiced)->modify(
            sprintf('+%d days', $days),
        );
    }

    /**
     * What is paid when: the deposit when ordering, then the instalments, or all the rest at once. Each is rounded to
     * the
     * currency's smallest coin; the last carries what is left, so that they add up.
     *
     * @param float|null $yearlyPercent what the owner's money costs: with it, the rest is paid early where the discount
     *      gains more than keeping the money would; null to pay when it is due
     *
     * @return non-empty-list<Payment> by day
     */
    public function payments(
        Money $total,
        \DateTimeImmutable $ordered,
        \DateTimeImmutable $invoiced,
        ?float $yearlyPercent = null,
    ): array {
        $hundred = BigDecimal::of(100);
        $deposit = $this->deposit($total);
        $payments = $this->depositPercent->isZero() ? [] : [new Payment($ordered, $deposit, $this->depositPercent)];
        $rest = $total->minus($deposit);
        $percent = $hundred->minus($this->depositPercent);
        if ($percent->isZero()) {
            return [new Payment($ordered, $deposit, $hundred)];
        }
        $early = $this->discountUntil($invoiced);
        if (null !== $early && null !== $yearlyPercent && $this->gainsByPayingEarly($invoiced, $yearlyPercent)) {
            return [...$payments, new Payment($early, $this->discounted($rest), $percent, true)];
        }
        $parts = [] === $this->instalments ? [[$percent, $this->netDays]] : $this->instalments;
        usort($parts, static fn (array $a, array $b): int => $a[1] <=> $b[1]);
        $last = array_pop($parts);
        foreach ($parts as [$share, $days]) {
            $part = $total->percent($share)->rounded();
            $payments[] = new Payment($this->after($invoiced, $days), $part, $share);
            $rest = $rest->minus($part);
        }

        return [...$payments, new Payment($this->after($invoiced, $last[1]), $rest, $last[0])];
    }

    private function gainsByPayingEarly(\DateTimeImmutable $invoiced, float $yearlyPercent): bool
    {
        [$later, $early] = $this->gains($invoiced, $yearlyPercent / 100 / 365);

        return $early > $later;
    }

    public function discountUntil(\DateTimeImmutable $invoiced): ?\DateTimeImmutable
    {
        return $this->discountPercent->isZero()
            ? null
            : $invoiced->add(new \DateInterval(sprintf('P%dD', $this->discountDays)));
    }

    public function discounted(Money $total): Money
    {
        return $total->minus($total->percent($this->discountPercent))->rounded();
    }

    /**
     * What not taking the discount costs, as simple interest a year in percent: d/(100 − d) × 365/(net − discount
     * days).
     * Source: any corporate finance text on trade credit; for 2/10 net 30 it is 37.24.
     */
    public function yearlyWorthPercent(): BigDecimal
    {
        if ($this->discountPercent->isZero()) {
            return BigDecimal::zero();
        }

        return $this->discountPercent
            ->multipliedBy(365)
            ->multipliedBy(100)
            ->dividedBy(
                BigDecimal::of(100)
                    ->minus($this->discountPercent)
                    ->multipliedBy($this->netDays - $this->discountDays),
                2,
                RoundingMode::HalfUp,
            );
    }

    /**
     * The same with interest on interest: (100 / (100 − d)) ^ (365/(net − discount days)) − 1; for 2/10 net 30 it is
     * 44.59.
     */
    public function yearlyWorthCompoundedPercent(): float
    {
        return $this->discountPercent->isZero()
            ? 0.0
            : 100 *
                    ((100 / (100 - $this->discountPercent->toFloat())) **
                        (365 / ($this->netDays - $this->discountDays)) -
                        1);
    }

    /**
     * What these terms gain against paying the whole on the day of the invoice, as a share of the total, at simple
     * interest; the discount for paying early is taken where that gains more. Below zero where money goes out before
     * the
     * goods come.
     *
     * @param float $yearlyPercent what the owner's money costs
     */
    public function worth(\DateTimeImmutable $ordered, \DateTimeImmutable $invoiced, float $yearlyPercent): float
    {
        $daily = $yearlyPercent / 100 / 365;
        $before = ($this->depositPercent->toFloat() / 100) * $daily * self::days($invoiced, $ordered);

        return $before + max($this->gains($invoiced, $daily));
    }

    /** @return array{float, float} of paying what is left after the deposit when it is due, and early */
    private function gains(\DateTimeImmutable $invoiced, float $daily): array
    {
        $rest = 1 - $this->depositPercent->toFloat() / 100;
        $later = 0.0;
        foreach ($this->instalments as [$percent, $after]) {
            $later += ($percent->toFloat() / 100) * $daily * self::days($invoiced, $this->after($invoiced, $after));
        }
        if ([] === $this->instalments) {
            $later = $rest * $daily * self::days($invoiced, $this->dueOn($invoiced));
        }
        $off = $this->discountPercent->toFloat() / 100;

        return [$later, $off > 0 ? $rest * ($off + (1 - $off) * $daily * $this->discountDays) : -INF];
    }

    private static function days(\DateTimeImmutable $from, \DateTimeImmutable $to): int
    {
        return (int) $from->diff($to)->format('%r%a');
    }
}
