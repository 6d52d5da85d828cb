<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Queue;

use Psr\Cache\CacheItemPoolInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Cache\PruneableInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\DependencyInjection\ServicesResetterInterface;
use Symfony\Component\Messenger\Event\WorkerMessageHandledEvent;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use TallBarrel\Exchange\Csv\OldUploads;
use TallBarrel\Store\Audit\PressedActs;
use TallBarrel\Store\Audit\Seals;
use TallBarrel\Store\Business\KeptFigures;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Planning\Proposals;
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
    private const SEALS_EVERY = 2;
    private const SWEEPS_EVERY = 600;
    private const CLOSES_EVERY = 15;

    private int $answered = 0;
    private int $priced = 0;
    private int $sealed = 0;
    private int $swept = 0;
    private int $closed = 0;

    public function __construct(
        private readonly PlanAgain $again,
        private readonly OfferPrices $prices,
        private readonly Proposals $proposals,
        private readonly Correspondents $correspondents,
        private readonly KeptFigures $figures,
        private readonly Seals $seals,
        private readonly PressedActs $presses,
        private readonly OldUploads $files,
        #[Autowire(service: 'cache.rate_limiter')] private readonly CacheItemPoolInterface $tries,
        #[Autowire(service: 'monolog.logger.doors')] private readonly LoggerInterface $doors,
        #[Autowire(service: 'services_resetter')] private readonly ServicesResetterInterface $services,
        private readonly ClockInterface $clock,
    ) {
    }

    #[AsEventListener]
    public function look(WorkerRunningEvent $event): void
    {
        // A worker lives longer than what it read: rates, prices and whatever else it remembers may have changed.
        $this->services->reset();
        for ($turn = 0; $turn < self::TURNS && $this->again->some(); ++$turn) {
            $this->services->reset();
            $this->figures->forget();
        }
        $now = $this->clock->now();
        if ($now->getTimestamp() - $this->priced >= self::PRICES_EVERY) {
            $this->priced = $now->getTimestamp();
            $this->prices->putInForce($now);
        }
        if ($now->getTimestamp() - $this->closed >= self::CLOSES_EVERY) {
            $this->closed = $now->getTimestamp();
            $this->proposals->closeBroken($now);
        }
        if ($now->getTimestamp() - $this->swept >= self::SWEEPS_EVERY) {
            $this->swept = $now->getTimestamp();
            $this->presses->sweep();
            $this->files->sweep($now);
            if ($this->tries instanceof PruneableInterface) {
                $this->tries->prune();
            }
        }
        if ($now->getTimestamp() - $this->sealed >= self::SEALS_EVERY) {
            $this->sealed = $now->getTimestamp();
            $this->seals();
        }
        if ($event->isWorkerIdle() && $now->getTimestamp() - $this->answered >= self::ANSWERS_EVERY) {
            $this->answered = $now->getTimestamp();
            $this->correspondents->answerDue();
        }
    }

    /** Where the chain ends is told where nobody who reaches the database reaches it. */
    private function seals(): void
    {
        $head = $this->seals->seal();
        if (null !== $head) {
            $this->doors->info('sealed', ['entries' => $head->entries, 'hash' => $head->hash]);
        }
    }

    #[AsEventListener]
    public function worked(WorkerMessageHandledEvent $event): void
    {
        $this->figures->forget();
    }
}
