<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;

/** What the board lists of one supplier, added up. */
final readonly class SupplierSum
{
    /**
     * @param string $code   of the supplier, empty where nobody sells it, as are its name and currency
     * @param float|null $freeFreightFrom value of an order from which they bring it for nothing, in their currency
     * @param float|null $fullLoadKg what fills a load, where an order pays best as a full one
     * @param int   $listed   proposals on the board
     * @param bool  $rush     whether a customer waits for one of them
     * @param float $risk     what waiting for the next chance to order costs for all of them, home currency
     * @param int   $chosen   ticked and not drafted yet; what follows is of these
     * @param float $value    in the supplier's currency
     * @param float $home     the same in the home currency
     * @param float $atRisk   what waiting costs, home currency
     * @param int   $cut      left out to stay within the budget; what follows is of these
     * @param float $cutHome  value, home currency
     * @param float $cutRisk  what waiting costs, home currency
     * @param float $cutBest  the most that leaving out costs for each unit of money
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $currency,
        public OrderMinimum $minimum,
        public ?float $freeFreightFrom,
        public FreightTariff $tariff,
        public ?float $fullLoadKg,
        public int $listed,
        public bool $rush,
        public float $risk,
        public int $chosen,
        public float $value,
        public float $home,
        public float $weightKg,
        public float $packs,
        public float $atRisk,
        public int $cut,
        public float $cutHome,
        public float $cutRisk,
        public float $cutBest,
    ) {
    }

    /** What the chosen lines lack of the supplier's minimum, in words; null where nothing is, or nothing is chosen. */
    public function shortfall(): ?string
    {
        return 0 === $this->chosen ? null : $this->minimum->shortfall($this->value, $this->weightKg, $this->packs);
    }

    /** Of the supplier's currency for one of ours, as the chosen lines have it. */
    public function rate(): float
    {
        return $this->home > 0 ? $this->value / $this->home : 1.0;
    }
}
