<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Site\Site;

/** Begins a quote round as a draft. */
final readonly class BeginRound
{
    public const REPLY_DAYS = 4;
    private const WANTED_DAYS = 21;

    public function __construct(
        private EntityManagerInterface $entities,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    public function begin(Person $person, Site $site): QuoteRound
    {
        $now = $this->clock->now();
        $today = $now->setTime(0, 0);
        $round = new QuoteRound(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::ROUNDS, $now),
            $person,
            $site,
            self::workday($today->modify(sprintf('+%d days', self::REPLY_DAYS))),
            self::workday($today->modify(sprintf('+%d days', self::WANTED_DAYS))),
            $now,
        );
        $this->entities->persist($round);
        $this->audit->note($person, $round->number, 'Begun');

        return $round;
    }

    private static function workday(\DateTimeImmutable $day): \DateTimeImmutable
    {
        return (int) $day->format('N') > 5 ? $day->modify('next monday') : $day;
    }
}
