<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Store\Offer\OfferPrices;

/** A price that holds from a day on is in force with the first page somebody opens on that day. */
final readonly class DuePrices
{
    public function __construct(private OfferPrices $prices, private ClockInterface $clock)
    {
    }

    #[AsEventListener(KernelEvents::REQUEST)]
    public function putInForce(RequestEvent $event): void
    {
        if ($event->isMainRequest()) {
            $this->prices->putInForce($this->clock->now());
        }
    }
}
