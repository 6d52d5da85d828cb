<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;

/** What is to be done about one place, with all it rests on; about to be saved. */
final readonly class Finding
{
    /**
     * @param BigDecimal   $packs  what to buy, after what other sites can give
     * @param list<Move>   $moves  from other sites
     * @param list<Note>   $odd    what a person should look at twice
     * @param bool         $listed whether it stands on the board
     * @param bool         $chosen whether it is ticked
     */
    public function __construct(
        public PlaceOutcome $outcome,
        public BigDecimal $packs,
        public array $moves,
        public array $odd,
        public bool $listed,
        public bool $chosen,
        public ?Shortage $shortage,
    ) {
    }

    /** Of the packs, in the supplier's currency; null where nobody sells it. */
    public function value(): ?Money
    {
        return $this->outcome->sourced->offer?->packPrice($this->packs)->multipliedBy($this->packs)->rounded();
    }

    /** Of the packs, in the home currency. */
    public function homeValue(): ?Money
    {
        $value = $this->value();

        return null === $value ? null : $this->outcome->sourced->offer?->rate->toHome($value)->rounded();
    }

    public function weightKg(): float
    {
        $units = $this->outcome->sourced->offer?->rule->pack->toStockUnits($this->packs)->toFloat() ?? 0.0;

        return $this->outcome->place->item->worth->weightKg * $units;
    }
}
