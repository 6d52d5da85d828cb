<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Planning\FillUpAdvice;

/** The proposals that would go to one supplier, and how far they reach. */
final readonly class ReorderGroup
{
    /**
     * @param list<ReorderRow> $rows   those shown at once
     * @param int              $more   how many follow
     * @param int              $chosen how many are ticked, shown or not
     */
    public function __construct(
        public ?Supplier $supplier,
        public array $rows,
        public int $more,
        public int $chosen,
        public ?Money $total,
        public float $weightKg,
        public ?\DateTimeImmutable $cutOff,
        public ?\DateTimeImmutable $arrival,
        public ?FillUpAdvice $advice,
    ) {
    }

    public function key(): string
    {
        return $this->supplier->code ?? 'none';
    }

    /** @return list<array{threshold: Money, words: string, share: float, met: bool}> */
    public function meters(): array
    {
        $meters = [];
        foreach (
            [
                'minimum' => $this->supplier?->minimum(),
                'free freight' => $this->supplier?->freeFreightFrom(),
            ] as $what => $threshold
        ) {
            if (null !== $threshold && null !== $this->total && !$threshold->isZero()) {
                $meters[] = [
                    'threshold' => $threshold,
                    'words' => $what,
                    'share' => min(1.0, $this->total->amount->toFloat() / $threshold->amount->toFloat()),
                    'met' => !$this->total->isLessThan($threshold),
                ];
            }
        }

        return $meters;
    }
}
