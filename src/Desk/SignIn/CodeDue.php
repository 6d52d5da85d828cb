<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Whoever gave the password but not yet the one-time code sees nothing but the page that asks for it. */
final readonly class CodeDue
{
    private const OPEN = ['sign_in_code', 'sign_in_code_check', 'sign_out', 'sign_in'];

    public function __construct(private UrlGeneratorInterface $urls)
    {
    }

    /** Right after the firewall. */
    #[AsEventListener(KernelEvents::REQUEST, priority: 7)]
    public function ask(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (
            $event->isMainRequest()
            && $request->hasPreviousSession()
            && true === $request->getSession()->get(Arrival::CODE_DUE)
            && !in_array($request->attributes->get('_route'), self::OPEN, true)
        ) {
            $event->setResponse(new RedirectResponse($this->urls->generate('sign_in_code')));
        }
    }
}
