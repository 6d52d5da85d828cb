<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Queue;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageHandledEvent;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use TallBarrel\Store\Business\KeptFigures;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Work\Planning\PlanAgain;
use TallBarrel\Work\Sourcing\Correspondents;

/**
 * What a worker looks after between messages: what moved is planned again, prices whose day has come are put in force,
 * suppliers who are stood in for answer.
 */
final class WhileIdle
{
    private const TURNS = 20;
    private const ANSWERS_EVERY = 5;
    private const PRICES_EVERY = 60;

    private int $answered = 0;
    private int $priced = 0;

    public function __construct(
        private readonly PlanAgain $again,
        private readonly OfferPrices $prices,
        private readonly Correspondents $correspondents,
        private readonly KeptFigures $figures,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
    ) {
    }

    #[AsEventListener]
    public function look(WorkerRunningEvent $event): void
    {
        $this->entities->clear();
        for ($turn = 0; $turn < self::TURNS && $this->again->some(); ++$turn) {
            $this->entities->clear();
            $this->figures->forget();
        }
        $now = $this->clock->now();
        if ($now->getTimestamp() - $this->priced >= self::PRICES_EVERY) {
            $this->priced = $now->getTimestamp();
            $this->prices->putInForce($now);
        }
        if ($event->isWorkerIdle() && $now->getTimestamp() - $this->answered >= self::ANSWERS_EVERY) {
            $this->answered = $now->getTimestamp();
            $this->correspondents->answerDue();
        }
    }

    #[AsEventListener]
    public function worked(WorkerMessageHandledEvent $event): void
    {
        $this->figures->forget();
    }
}
