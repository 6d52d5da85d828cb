<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Queue;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Work\Planning\PlanPart;

/** Work that failed for good says so where people wait for it, besides standing in the failure queue. */
final readonly class GivenUp
{
    public function __construct(private Proposals $proposals)
    {
    }

    #[AsEventListener(priority: -200)]
    public function note(WorkerMessageFailedEvent $event): void
    {
        $message = $event->getEnvelope()->getMessage();
        if (!$event->willRetry() && $message instanceof PlanPart) {
            $this->proposals->fail($message->run, $event->getThrowable()->getMessage());
        }
    }
}
