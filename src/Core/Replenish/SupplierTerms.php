<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Ordering\OrderDays;

/** What planning needs to know of a supplier. */
final readonly class SupplierTerms
{
    /** @param list<int> $leadTimesMet days from sending to booking in, of the latest receipts */
    public function __construct(public string $name, public OrderDays $orderDays, public array $leadTimesMet)
    {
    }

    /** Days, or null where nothing has been received yet. */
    public function meanLeadTime(): ?float
    {
        return [] === $this->leadTimesMet ? null : array_sum($this->leadTimesMet) / count($this->leadTimesMet);
    }
}
