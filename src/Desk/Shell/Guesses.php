<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\LimiterInterface;
use Symfony\Component\RateLimiter\RateLimit;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;

/** Addresses that are keys, guessed: from one place, so many lead nowhere, and then none leads anywhere for a while. */
final readonly class Guesses
{
    public function __construct(
        #[Autowire(service: 'limiter.guessed_link')] private RateLimiterFactoryInterface $limiter,
        private ClockInterface $clock,
    ) {
    }

    /** @throws TooManyRequestsHttpException */
    public function allow(Request $request): void
    {
        $limit = $this->from($request)->consume(0);
        if ($limit->getRemainingTokens() < 1) {
            throw self::tooOften($limit, $this->clock);
        }
    }

    /** One more that led nowhere. */
    public function note(Request $request): void
    {
        $this->from($request)->consume();
    }

    public static function tooOften(RateLimit $limit, ClockInterface $clock): TooManyRequestsHttpException
    {
        return new TooManyRequestsHttpException(
            max(1, $limit->getRetryAfter()->getTimestamp() - $clock->now()->getTimestamp()),
            'This page was asked for too often. Please wait a few minutes.',
        );
    }

    private function from(Request $request): LimiterInterface
    {
        return $this->limiter->create((string) $request->getClientIp());
    }
}
