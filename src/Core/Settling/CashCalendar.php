<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use TallBarrel\Core\Money\Money;

/** What has to be paid, week by week from the one that runs; what is overdue falls in this week. */
final readonly class CashCalendar
{
    /** Half a year. */
    public const WEEKS = 26;

    /** @param list<CashWeek> $weeks WEEKS of them */
    private function __construct(public array $weeks, public Money $later)
    {
    }

    /**
     * @param list<CashFlow> $flows   in the home currency
     * @param Money|null     $balance that there is now; null where nobody said
     */
    public static function of(\DateTimeImmutable $today, array $flows, Money $zero, ?Money $balance): self
    {
        $monday = $today->setTime(0, 0)->modify('monday this week');
        usort($flows, static fn (CashFlow $a, CashFlow $b): int => $a->day <=> $b->day);
        $byWeek = [];
        $later = $zero;
        foreach ($flows as $flow) {
            $week = intdiv(max(0, (int) $monday->diff($flow->day->setTime(0, 0))->format('%r%a')), 7);
            if ($week >= self::WEEKS) {
                $later = $later->plus($flow->amount);
            } else {
                $byWeek[$week][] = $flow;
            }
        }
        [$high, $low, $weeks] = [$balance, $balance, []];
        for ($n = 0; $n < self::WEEKS; ++$n) {
            $sums = [];
            foreach ($byWeek[$n] ?? [] as $flow) {
                $sums[$flow->kind->value] = ($sums[$flow->kind->value] ?? $zero)->plus($flow->amount);
                $high = $flow->kind->isOwed() ? $high?->minus($flow->amount) : $high;
                $low = $low?->minus($flow->amount);
            }
            $weeks[] = new CashWeek($monday->modify(sprintf('+%d weeks', $n)), $sums, $byWeek[$n] ?? [], $high, $low);
        }

        return new self($weeks, $later);
    }

    /** The first week after which there is not enough, whatever is ordered; null where there is. */
    public function shortIn(): ?CashWeek
    {
        foreach ($this->weeks as $week) {
            if (true === $week->low?->amount->isNegative()) {
                return $week;
            }
        }

        return null;
    }
}
