<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Store\Type\BigDecimalType;

/** The one business this installation belongs to. */
#[ORM\Entity]
class Business
{
    public const ID = 1;

    #[ORM\Id, ORM\Column]
    public readonly int $id;

    public function __construct(
        #[ORM\Column(length: 120)]
        public readonly string $name,
        #[ORM\Column(length: 200)]
        public readonly string $address,
        #[ORM\Column(length: 40)]
        public readonly string $taxNumber,
        #[ORM\Column(length: 3)]
        public readonly string $currency,
        /** Cost of placing and receiving one order line. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 2)]
        public readonly BigDecimal $orderCost,
        /** Cost of keeping stock for a year, in percent of its value. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
        public readonly BigDecimal $holdingPercent,
        /** What may be ordered in a month; null for no budget. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
        public readonly ?BigDecimal $monthlyBudget,
    ) {
        $this->id = self::ID;
    }

    public function homeCurrency(): Currency
    {
        return Currency::of($this->currency);
    }
}
