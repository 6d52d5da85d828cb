<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Store\Business\KeptFigures;
use TallBarrel\Work\Planning\PlanAgain;

/**
 * After something was changed, a handful of items is planned again before the answer goes out, so that the next page is
 * right.
 */
final readonly class FollowUp
{
    public function __construct(
        private PlanAgain $again,
        private KeptFigures $figures,
        private ManagerRegistry $registry,
    ) {
    }

    #[AsEventListener(KernelEvents::RESPONSE)]
    public function planAgain(ResponseEvent $event): void
    {
        if (
            $event->isMainRequest()
            && !$event->getRequest()->isMethodSafe()
            && $event->getResponse()->getStatusCode() < 400
        ) {
            // What was refused closed it.
            $entities = $this->registry->getManager();
            if ($entities instanceof EntityManagerInterface && !$entities->isOpen()) {
                $this->registry->resetManager();
            }
            $this->again->aHandful();
            $this->figures->forget();
        }
    }
}
