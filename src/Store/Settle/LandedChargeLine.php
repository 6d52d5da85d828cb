<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Type\BigDecimalType;

/** The share of a charge that one line of a receipt bears, in the home currency. */
#[ORM\Entity(readOnly: true)]
class LandedChargeLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly LandedCharge $charge,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly ReceiptLine $came,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $share,
        /** What of it raised the cost of what was still there; the rest is cost of what was sold. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $toStock,
    ) {
        $charge->add($this);
    }

    public function toSales(): BigDecimal
    {
        return $this->share->minus($this->toStock);
    }
}
