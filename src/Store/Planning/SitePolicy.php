<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;

/** How one item is replenished at one site, in place of how it is everywhere. */
#[ORM\Entity]
class SitePolicy implements PlanningRestsOnIt
{
    #[ORM\Embedded(columnPrefix: false)]
    private PolicyColumns $policy;

    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
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
