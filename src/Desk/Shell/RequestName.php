<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;

/**
 * By what a request is named in every log, and on the page that says that something went wrong: as the server in front
 * named it, else by chance; never as a stranger calls it.
 */
final readonly class RequestName
{
    private const KEY = '_name';
    private const BEFORE_ALL = 8192;

    #[AsEventListener(KernelEvents::REQUEST, priority: self::BEFORE_ALL)]
    public function give(RequestEvent $event): void
    {
        self::of($event->getRequest());
    }

    public static function of(Request $request): string
    {
        $given = $request->server->getString('REQUEST_NAME');
        $name = $request->attributes->get(self::KEY)
            ?? (1 === preg_match('/^[0-9a-f]{32}$/', $given) ? $given : bin2hex(random_bytes(16)));
        $request->attributes->set(self::KEY, $name);

        return is_string($name) ? $name : '';
    }
}
