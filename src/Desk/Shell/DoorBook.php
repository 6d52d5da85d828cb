<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use Symfony\Component\Security\Http\Event\LoginFailureEvent;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Symfony\Component\Security\Http\Event\LogoutEvent;
use TallBarrel\Desk\SignIn\People;
use TallBarrel\Store\Person\Person;

/**
 * Who came in, who was turned away, what was refused and what was taken along: lines of a log of its own, with nothing
 * in them that opens anything.
 */
final readonly class DoorBook
{
    private const REFUSALS = [401, 403, 413, 429];

    public function __construct(
        #[Autowire(service: 'monolog.logger.doors')] private LoggerInterface $log,
        private TokenStorageInterface $tokens,
    ) {
    }

    #[AsEventListener]
    public function cameIn(LoginSuccessEvent $event): void
    {
        $person = $event->getUser();
        $this->log->info('signed in', [
            'person' => $person instanceof Person ? $person->id : null,
            'from' => $event->getRequest()->getClientIp(),
        ]);
    }

    #[AsEventListener]
    public function turnedAway(LoginFailureEvent $event): void
    {
        $this->log->warning('sign-in failed', [
            // What was typed may be a password in the wrong field.
            'address' => self::short(People::spelling($event->getRequest()->request->getString('email'))),
            'why' => (new \ReflectionClass($event->getException()))->getShortName(),
            'from' => $event->getRequest()->getClientIp(),
        ]);
    }

    #[AsEventListener]
    public function left(LogoutEvent $event): void
    {
        $this->log->info('signed out', $this->who($event->getRequest()));
    }

    #[AsEventListener]
    public function answered(ResponseEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $request = $event->getRequest();
        $response = $event->getResponse();
        if (in_array($response->getStatusCode(), self::REFUSALS, true)) {
            $this->log->warning('refused', [...$this->who($request), 'status' => $response->getStatusCode()]);
        }
        $isByLink = true === $request->attributes->get(CsrfGuard::BY_LINK);
        if ($isByLink) {
            $this->log->info('link used', [
                ...$this->who($request),
                'link' => self::short(self::token($request)),
                'status' => $response->getStatusCode(),
            ]);
        }
        if (str_starts_with((string) $response->headers->get('Content-Disposition'), 'attachment')) {
            $this->log->info('taken along', [
                ...$this->who($request),
                'type' => $response->headers->get('Content-Type'),
                'bytes' => strlen((string) $response->getContent()),
            ]);
        }
    }

    /** To know it again by, and nothing else. */
    private static function short(string $text): string
    {
        return substr(hash('sha256', $text), 0, 12);
    }

    private static function token(Request $request): string
    {
        $token = $request->attributes->get('token');

        return is_string($token) ? $token : '';
    }

    /** @return array{person: int|null, from: string|null, method: string, route: string} */
    private function who(Request $request): array
    {
        $person = $this->tokens->getToken()?->getUser();
        $route = $request->attributes->get('_route');

        return [
            'person' => $person instanceof Person ? $person->id : null,
            'from' => $request->getClientIp(),
            'method' => $request->getMethod(),
            'route' => is_string($route) ? $route : '',
        ];
    }
}
