<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Type\BigDecimalType;

/** So many packs of one order line, booked in at a cost. */
#[ORM\Entity(readOnly: true)]
class ReceiptLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly Receipt $receipt,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly OrderLine $line,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $packs,
        /** Of one stock unit, in the home currency. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)] public readonly BigDecimal $unitCost,
        #[ORM\Column(length: 40)] public readonly string $lot,
        #[ORM\OneToOne] public readonly ?ReceiptLine $takesBack = null,
    ) {
        $receipt->add($this);
    }

    /** Its opposite, on another receipt. */
    public static function takingBack(Receipt $by, self $line): self
    {
        return new self($by, $line->line, $line->packs->negated(), $line->unitCost, $line->lot, $line);
    }
}
