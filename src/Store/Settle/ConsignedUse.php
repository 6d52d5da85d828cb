<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Type\BigDecimalType;

/** Goods on consignment that became ours: their invoice is expected from then on. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'consigned_use')]
class ConsignedUse
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly OrderLine $line,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $packs,
        /** Whether they were used; else the day came on which they are ours anyway. */
        #[ORM\Column] public readonly bool $used,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
    ) {
    }
}
