<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use TallBarrel\Core\Money\PaymentTerms;

/** What counts of a supplier when its offers are compared. Amounts are in the supplier's currency. */
final readonly class Seller
{
    /**
     * @param list<int> $leadTimesMet days from sending to booking in
     * @param float     $freightCame  what their freight came to before, beside the tariff; 1 where nobody knows better
     */
    public function __construct(
        public int $id,
        public string $name,
        public ?PaymentTerms $terms,
        public ?Incoterm $incoterm,
        public FreightTariff $freight,
        public OrderMinimum $minimum,
        public array $leadTimesMet = [],
        public float $freightCame = 1.0,
    ) {
    }

    public function withFreight(FreightTariff $freight): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->terms,
            $this->incoterm,
            $freight,
            $this->minimum,
            $this->leadTimesMet,
            $this->freightCame,
        );
    }

    /** @param float $times as much as by the tariff */
    public function whoseFreightCameTo(float $times): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->terms,
            $this->incoterm,
            $this->freight,
            $this->minimum,
            $this->leadTimesMet,
            $times,
        );
    }

    /**
     * Days an order may take, all equally likely: those met, and the promise once, so that few deliveries lean on it.
     *
     * @return non-empty-list<int>
     */
    public function leadTimes(int $promised): array
    {
        return [...$this->leadTimesMet, $promised];
    }
}
