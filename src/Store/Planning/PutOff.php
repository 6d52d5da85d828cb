<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** A proposal somebody skipped, or put off until a day. */
#[ORM\Entity]
class PutOff implements PlanningRestsOnIt
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(name: 'until_day', type: 'date_immutable')] private \DateTimeImmutable $until,
        #[ORM\Column(length: 200)] private string $reason,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] private Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
    ) {
        $this->until($until, $reason, $by, $at);
    }

    /** @throws InvalidValue if the day has passed */
    public function until(\DateTimeImmutable $until, string $reason, Person $by, \DateTimeImmutable $at): void
    {
        if ($until->format('Y-m-d') <= $at->format('Y-m-d')) {
            throw InvalidValue::because(
                sprintf('%s has passed; put it off until a day to come.', $until->format('j M Y')),
            );
        }
        $this->until = $until;
        $this->reason = trim($reason);
        $this->by = $by;
        $this->at = $at;
    }

    public function untilDay(): \DateTimeImmutable
    {
        return $this->until;
    }

    public function reason(): string
    {
        return $this->reason;
    }

    public function by(): Person
    {
        return $this->by;
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
