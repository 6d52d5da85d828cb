<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\KernelEvents;

/** Only what ships with the application may run, be shown or be framed. */
final readonly class SecurityHeaders
{
    #[AsEventListener(KernelEvents::RESPONSE)]
    public function add(ResponseEvent $event): void
    {
        $headers = $event->getResponse()->headers;
        $headers->set(
            'Content-Security-Policy',
            "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; "
            ."connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
        );
        $headers->set('X-Content-Type-Options', 'nosniff');
        // A page that only its link leads to never tells that link to anybody.
        if (!$headers->has('Referrer-Policy')) {
            $headers->set('Referrer-Policy', 'same-origin');
        }
        $headers->set('Cache-Control', 'no-store, private');
        if ($event->getRequest()->isSecure()) {
            $headers->set('Strict-Transport-Security', 'max-age=31536000');
        }
    }
}
