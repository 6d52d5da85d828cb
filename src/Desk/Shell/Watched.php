<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Work\Keeping\Condition;

/**
 * Answers those who watch: /health, whether it works, to anybody; /metrics, in figures, to whoever has the token.
 * Before anything else is asked, so that it answers where nothing else does.
 */
final readonly class Watched
{
    private const BEFORE_ALL = 4096;

    public function __construct(
        private Condition $condition,
        #[Autowire('%env(default::METRICS_TOKEN)%')] private ?string $token = null,
    ) {
    }

    #[AsEventListener(KernelEvents::REQUEST, priority: self::BEFORE_ALL)]
    public function answer(RequestEvent $event): void
    {
        $request = $event->getRequest();
        $response = match ($event->isMainRequest() ? $request->getPathInfo() : '') {
            '/health' => $this->health(),
            '/metrics' => $this->metrics($request),
            default => null,
        };
        if (null !== $response) {
            $event->setResponse($response);
        }
    }

    private function health(): Response
    {
        [$broken, $look] = Condition::judge($this->condition->figures());

        return new JsonResponse(
            ['works' => [] === $broken, 'broken' => $broken, 'look at' => $look],
            [] === $broken ? 200 : 503,
        );
    }

    /** In the text format of Prometheus 0.0.4. */
    private function metrics(Request $request): Response
    {
        $given = (string) $request->headers->get('Authorization');
        if (null === $this->token || '' === $this->token || !hash_equals('Bearer '.$this->token, $given)) {
            return new Response('', 404);
        }
        $text = '';
        foreach ($this->condition->figures() as $name => $value) {
            $text .= sprintf("# TYPE tallbarrel_%1\$s gauge\ntallbarrel_%1\$s %2\$s\n", $name, $value ?? 'NaN');
        }

        return new Response($text, 200, ['Content-Type' => 'text/plain; version=0.0.4; charset=utf-8']);
    }
}
