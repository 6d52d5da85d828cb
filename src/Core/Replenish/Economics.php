<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What ordering, holding and not having an item cost, in the home currency. */
final readonly class Economics
{
    /**
     * @param float                              $unitCost     of one stock unit
     * @param float                              $orderCost    of placing and receiving one order line
     * @param float                              $holdingShare of the stock's value, a year
     * @param float|null                         $salesPrice   of one stock unit; null for what is used and not sold
     * @param list<array{float, float}>          $breaks       from so many stock units, price of one; rising quantities
     * @param array{float, \DateTimeImmutable}|null $priceRise  share by which the price rises (0.05), and the day
     * @param int|null                           $shelfDays    days after arrival until it can no longer be sold
     * @param bool $incremental whether a break lowers only the price of what goes beyond it
     */
    public function __construct(
        public float $unitCost,
        public float $orderCost,
        public float $holdingShare,
        public ?float $salesPrice = null,
        public array $breaks = [],
        public ?array $priceRise = null,
        public ?int $shelfDays = null,
        public bool $incremental = false,
    ) {
    }

    /** Of holding one stock unit for a year. */
    public function holding(): float
    {
        return $this->unitCost * $this->holdingShare;
    }

    /** What is lost with each stock unit that cannot be sold. */
    public function margin(): float
    {
        return null === $this->salesPrice ? 0.0 : max(0.0, $this->salesPrice - $this->unitCost);
    }
}
