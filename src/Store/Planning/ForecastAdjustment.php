<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** A person knows better than the forecast, for a reason and until a day. */
#[ORM\Entity]
class ForecastAdjustment implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue if the percentage, the day or the reason make no sense */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        /** Null for all sites. */
        #[ORM\ManyToOne] public readonly ?Site $site,
        #[ORM\Column] public readonly float $percent,
        #[ORM\Column(name: 'until_day', type: 'date_immutable')] public readonly \DateTimeImmutable $until,
        #[ORM\Column(length: 200)] public readonly string $reason,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
    ) {
        if ($percent < -100 || $percent > 900 || 0.0 === $percent) {
            throw InvalidValue::because(sprintf('%+g %% is no adjustment; expected −100 to 900, not 0.', $percent));
        }
        if ($until <= $at) {
            throw InvalidValue::because(
                sprintf('%s has passed; choose the day the adjustment ends.', $until->format('j M Y')),
            );
        }
        if ('' === trim($reason)) {
            throw InvalidValue::because('Give the reason: whoever looks at it next will ask.');
        }
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
