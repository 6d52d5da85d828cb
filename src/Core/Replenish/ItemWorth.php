<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What one stock unit of an item costs, brings and weighs. */
final readonly class ItemWorth
{
    /**
     * @param float      $unitCost   home currency
     * @param float|null $salesPrice home currency; null for what is used and not sold
     * @param float      $weightKg   0 where it is not known
     * @param int|null   $shelfDays  days after arrival until it can no longer be sold; null for ever
     */
    public function __construct(
        public float $unitCost,
        public ?float $salesPrice,
        public float $weightKg,
        public ?int $shelfDays,
    ) {
    }
}
