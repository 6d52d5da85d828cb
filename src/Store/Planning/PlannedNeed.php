<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** Demand somebody knows of beforehand: a fair, a school order, a club's bulk buy. */
#[ORM\Entity]
#[ORM\Table(name: 'planned_demand')]
#[ORM\Index(name: 'planned_day', columns: ['day'])]
class PlannedNeed implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue if the quantity is not above zero or the name is missing */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(length: 80)] public readonly string $name,
        #[ORM\ManyToOne] public readonly ?Person $by,
    ) {
        if (!$quantity->isPositive()) {
            throw InvalidValue::because(sprintf('%s is no planned demand; expected above 0.', $quantity));
        }
        if ('' === trim($name)) {
            throw InvalidValue::because('Say what it is for.');
        }
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
