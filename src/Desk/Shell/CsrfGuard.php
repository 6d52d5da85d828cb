<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/** Every request that changes something must carry the token of the session: one rule, no form can forget it. */
final readonly class CsrfGuard
{
    public const TOKEN = 'desk';
    /** Routes whose address itself is the secret have no session, and nothing a foreign page could misuse. */
    public const BY_LINK = '_by_link';

    public function __construct(private CsrfTokenManagerInterface $tokens)
    {
    }

    #[AsEventListener(KernelEvents::CONTROLLER)]
    public function check(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        if ($request->isMethodSafe() || !$event->isMainRequest() || true === $request->attributes->get(self::BY_LINK)) {
            return;
        }
        $given = $request->headers->get('X-CSRF-Token') ?? $request->request->getString('_token');
        if (!$this->tokens->isTokenValid(new CsrfToken(self::TOKEN, $given))) {
            throw new AccessDeniedHttpException(
                'This page was open for too long, or came from elsewhere. Go back, reload it, and try again.',
            );
        }
    }
}
