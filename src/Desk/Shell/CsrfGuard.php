<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/**
 * Every request that changes something must carry the token of the session: one rule, no form can forget it. Who has no
 * session yet must come from one of our own pages, as browsers say.
 */
final readonly class CsrfGuard
{
    public const TOKEN = 'desk';
    public const STRANGER = 'stranger';
    /** Routes whose forms are sent before anybody is signed in. */
    public const OF_STRANGERS = '_of_strangers';
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
        $id = true === $request->attributes->get(self::OF_STRANGERS) ? self::STRANGER : self::TOKEN;
        $given = $request->headers->get('X-CSRF-Token') ?? $request->request->getString('_token');
        if (!$this->tokens->isTokenValid(new CsrfToken($id, $given))) {
            throw new AccessDeniedHttpException(
                'This page was open for too long, or came from elsewhere. Go back, reload it, and try again.',
            );
        }
    }
}
