<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Queue;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Offer\PriceList;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Work\Keeping\ImportToApply;
use TallBarrel\Work\Keeping\PlainReason;
use TallBarrel\Work\Planning\PlanPart;
use TallBarrel\Work\Sourcing\PriceListToApply;
use TallBarrel\Work\Sourcing\PriceListToRead;

/** Work that failed for good says so where people wait for it, besides standing in the failure queue. */
final readonly class GivenUp
{
    public function __construct(private Proposals $proposals, private EntityManagerInterface $entities)
    {
    }

    #[AsEventListener(priority: -200)]
    public function note(WorkerMessageFailedEvent $event): void
    {
        if ($event->willRetry()) {
            return;
        }
        $message = $event->getEnvelope()->getMessage();
        $why = PlainReason::of($event->getThrowable());
        $this->entities->clear();
        match (true) {
            $message instanceof PlanPart => $this->proposals->fail($message->run, $why),
            $message instanceof ImportToApply => $this->import($message->run, $why),
            $message instanceof PriceListToRead => $this->priceList($message->list)?->couldNotBeRead($why),
            $message instanceof PriceListToApply => $this->priceList($message->list)?->couldNotBeApplied($why),
            default => null,
        };
        $this->entities->flush();
    }

    private function import(int $run, string $why): void
    {
        $run = $this->entities->find(ImportRun::class, $run);
        if (ImportRun::APPLYING === $run?->state()) {
            $run->failed('Nothing was applied: '.$why);
        }
    }

    private function priceList(int $list): ?PriceList
    {
        $list = $this->entities->find(PriceList::class, $list);

        return true === $list?->isReading() || true === $list?->isApplying() ? $list : null;
    }
}
