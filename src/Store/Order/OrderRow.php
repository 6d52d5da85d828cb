<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderState;

/** One order as a line of a list: read only, without its lines. */
final readonly class OrderRow
{
    /**
     * @param array<int, string> $sites     names of those it goes to, by id
     * @param \DateTimeImmutable $dueOn     when the first of what is outstanding is due
     * @param int                $total     orders in the list it is a part of
     * @param string             $totalHome what they come to, in the home currency
     */
    public function __construct(
        public int $id,
        public string $number,
        public OrderState $state,
        public int $supplierId,
        public string $supplier,
        public string $buyer,
        public \DateTimeImmutable $wantedOn,
        public ?\DateTimeImmutable $promisedOn,
        public array $sites,
        public int $lines,
        public Money $goods,
        private \DateTimeImmutable $dueOn,
        public int $total,
        public string $totalHome,
    ) {
    }

    /** Its first word. */
    public function shortSupplier(): string
    {
        return explode(' ', $this->supplier)[0];
    }

    public function dueOn(): \DateTimeImmutable
    {
        return $this->dueOn;
    }

    public function goesTo(?int $site): bool
    {
        return null === $site || isset($this->sites[$site]);
    }

    /** Whole days from a day until it is due; below zero when it is late. */
    public function daysFrom(\DateTimeImmutable $today): int
    {
        return (int) $today
            ->diff(new \DateTimeImmutable($this->dueOn()->format('Y-m-d'), $today->getTimezone()))
            ->format('%r%a');
    }

    public function isLate(\DateTimeImmutable $today): bool
    {
        return $this->state->isOpen() && $this->daysFrom($today) < 0;
    }
}
