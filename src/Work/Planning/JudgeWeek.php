<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\HistoryVerdict;
use TallBarrel\Store\Site\Site;

/** Says of a week of history that it counts as it is, or that it is left out. */
final readonly class JudgeWeek
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @throws InvalidValue unless the day lies in the past */
    public function judge(Item $item, Site $site, \DateTimeImmutable $day, bool $keep, Person $person): void
    {
        if ($day >= $this->clock->now()->setTime(0, 0)) {
            throw InvalidValue::because('Choose a day of a week that is over.');
        }
        $known = $this->entities
            ->getRepository(HistoryVerdict::class)
            ->findOneBy(['item' => $item, 'site' => $site, 'day' => $day]);
        if (null === $known) {
            $this->entities->persist(new HistoryVerdict($item, $site, $day, $keep, $person, $this->clock->now()));
        } else {
            $known->decide($keep, $person, $this->clock->now());
        }
        $this->audit->note(
            $person,
            $item->code,
            sprintf(
                'The week of %s at %s %s',
                $day->format('j M Y'),
                $site->name(),
                $keep ? 'counts as it is' : 'is left out',
            ),
        );
        $this->entities->flush();
    }
}
