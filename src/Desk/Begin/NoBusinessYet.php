<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Begin;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Store\Business\CurrentBusiness;

/** Where there is no business yet, every address leads to the page that begins one. */
final readonly class NoBusinessYet
{
    public function __construct(private CurrentBusiness $business, private UrlGeneratorInterface $urls)
    {
    }

    /** After the address was understood, before anybody is asked to sign in. */
    #[AsEventListener(KernelEvents::REQUEST, priority: 20)]
    public function lead(RequestEvent $event): void
    {
        if (
            $event->isMainRequest()
            && !in_array($event->getRequest()->attributes->get('_route'), ['begin', 'begin_save'], true)
            && null === $this->business->find()
        ) {
            $event->setResponse(new RedirectResponse($this->urls->generate('begin')));
        }
    }
}
