<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Store\Item\Item;

/** How one item is replenished, in place of its class's setting. */
#[ORM\Entity]
class ItemPolicy implements PlanningRestsOnIt
{
    #[ORM\Embedded(columnPrefix: false)]
    private PolicyColumns $policy;

    public function __construct(
        #[ORM\Id, ORM\OneToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        Policy $policy,
    ) {
        $this->change($policy);
    }

    public function change(Policy $policy): void
    {
        $this->policy = PolicyColumns::of($policy);
    }

    public function policy(): Policy
    {
        return $this->policy->policy();
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
