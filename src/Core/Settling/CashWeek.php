<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use TallBarrel\Core\Money\Money;

/** What has to be paid in a week, and what is left after it. */
final readonly class CashWeek
{
    /**
     * @param array<string, Money> $sums  by kind of flow, where there is any
     * @param list<CashFlow>       $flows by day
     * @param Money|null           $high  left if only what is owed already is paid; null where nobody said
     * @param Money|null           $low   left if all that is ordered comes and is paid too
     */
    public function __construct(
        public \DateTimeImmutable $monday,
        public array $sums,
        public array $flows,
        public ?Money $high,
        public ?Money $low,
    ) {
    }

    public function total(): ?Money
    {
        $sums = array_values($this->sums);

        return [] === $sums ? null : Money::sum($sums[0]->currency, $sums);
    }
}
