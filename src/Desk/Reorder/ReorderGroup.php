<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Planning\SupplierSum;
use TallBarrel\Work\Planning\FillUpAdvice;

/** The proposals that would go to one supplier, and how far they reach. */
final readonly class ReorderGroup
{
    /**
     * @param SupplierSum      $sum  of all that is ticked, shown or not
     * @param list<ReorderRow> $rows those shown at once
     * @param int              $more how many follow
     */
    public function __construct(
        public SupplierSum $sum,
        public array $rows,
        public int $more,
        public ?\DateTimeImmutable $cutOff,
        public ?\DateTimeImmutable $arrival,
        public ?FillUpAdvice $advice,
    ) {
    }

    public function key(): string
    {
        return '' === $this->sum->code ? 'none' : $this->sum->code;
    }

    /** Null where nobody sells it. */
    public function total(): ?Money
    {
        return $this->money($this->sum->value);
    }

    /** @return list<array{threshold: Money, words: string, share: float, met: bool}> */
    public function meters(): array
    {
        $meters = [];
        foreach (
            [
                'minimum' => $this->money($this->sum->minimum->value),
                'free freight' => $this->money($this->sum->freeFreightFrom),
            ] as $what => $threshold
        ) {
            $total = $this->total();
            if (null !== $threshold && null !== $total && !$threshold->isZero()) {
                $meters[] = [
                    'threshold' => $threshold,
                    'words' => $what,
                    'share' => min(1.0, $total->amount->toFloat() / $threshold->amount->toFloat()),
                    'met' => !$total->isLessThan($threshold),
                ];
            }
        }

        return $meters;
    }

    private function money(?float $amount): ?Money
    {
        return null === $amount || '' === $this->sum->currency
            ? null
            : Money::of(number_format($amount, 2, '.', ''), $this->sum->currency);
    }
}
