<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\Supplier\Supplier;

/** The proposals that would go to one supplier, and how far they reach. */
final readonly class ReorderGroup
{
    /** @param list<ReorderRow> $rows */
    public function __construct(
        public ?Supplier $supplier,
        public array $rows,
        public ?\DateTimeImmutable $cutOff,
        public ?\DateTimeImmutable $arrival,
    ) {
    }

    public function key(): string
    {
        return $this->supplier->code ?? 'none';
    }

    public function total(): ?Money
    {
        return null === $this->supplier ? null : Money::sum($this->supplier->currency(), array_filter(array_map(static fn (ReorderRow $row): ?Money => $row->isChosen() ? $row->line : null, $this->rows)));
    }

    /** A customer waits for something of it. */
    public function hasRush(): bool
    {
        return [] !== array_filter($this->rows, static fn (ReorderRow $row): bool => Reason::Rush === $row->proposal->reason);
    }

    /** @return list<ReorderRow> */
    public function chosen(): array
    {
        return array_values(array_filter($this->rows, static fn (ReorderRow $row): bool => $row->isChosen()));
    }

    /** @return list<array{threshold: Money, words: string, share: float, met: bool}> */
    public function meters(): array
    {
        $meters = [];
        $total = $this->total();
        foreach (['minimum' => $this->supplier?->minimum(), 'free freight' => $this->supplier?->freeFreightFrom()] as $what => $threshold) {
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
}
