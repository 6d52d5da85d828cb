<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;

/** One calculation of what to buy, over all items and sites. */
#[ORM\Entity]
class PlanningRun
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\Column(type: 'datetime_immutable')]
        public readonly \DateTimeImmutable $at,
        /** Days an order should last; null where the economic quantity decides. */
        #[ORM\Column(nullable: true)]
        public readonly ?int $coverDays,
        #[ORM\Column]
        public readonly int $itemSites,
        #[ORM\Column]
        public readonly int $milliseconds,
    ) {
    }
}
