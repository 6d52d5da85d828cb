<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\Way;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Type\BigDecimalType;

/** How goods get from one site to another, where it is not the usual way. */
#[ORM\Entity]
#[ORM\Table(name: 'site_way')]
class SiteWay implements PlanningRestsOnIt
{
    /** Days; null where nothing goes. */
    #[ORM\Column(nullable: true)]
    private ?int $days = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 2)]
    private BigDecimal $cost;

    /** @throws InvalidValue */
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $source,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $target,
        ?int $days,
        BigDecimal $cost,
    ) {
        $this->change($days, $cost);
    }

    /** @throws InvalidValue */
    public function change(?int $days, BigDecimal $cost): void
    {
        Way::of($days ?? 0, $cost->toFloat());
        $this->days = $days;
        $this->cost = $cost;
    }

    public function way(): ?Way
    {
        return null === $this->days ? null : Way::of($this->days, $this->cost->toFloat());
    }

    public function moves(): Moves
    {
        return Moves::everything();
    }
}
