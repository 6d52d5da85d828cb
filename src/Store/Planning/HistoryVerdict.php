<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** What a person says of a week of history: it counts as it is, or it is left out. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'verdict_once', columns: ['item_id', 'site_id', 'day'])]
class HistoryVerdict implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        /** A day within the week. */
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column] private bool $keep,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] private Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
    ) {
    }

    public function decide(bool $keep, Person $by, \DateTimeImmutable $at): void
    {
        $this->keep = $keep;
        $this->by = $by;
        $this->at = $at;
    }

    public function isKept(): bool
    {
        return $this->keep;
    }

    public function words(): string
    {
        return sprintf('%s, %s', $this->by->firstName(), $this->at->format('j M'));
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
