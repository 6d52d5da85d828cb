<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SupplierPage;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\RateLimiterFactory;

/** How often a page that only a link leads to may be asked for. */
final readonly class LinkThrottle
{
    public function __construct(private RateLimiterFactory $supplierPageLimiter, private ClockInterface $clock)
    {
    }

    /** @throws TooManyRequestsHttpException */
    public function take(string $token, Request $request): void
    {
        $limit = $this->supplierPageLimiter->create($request->getClientIp().' '.substr($token, 0, 8))->consume();
        if (!$limit->isAccepted()) {
            throw new TooManyRequestsHttpException(
                max(1, $limit->getRetryAfter()->getTimestamp() - $this->clock->now()->getTimestamp()),
                'This page was asked for too often. Please wait a few minutes.',
            );
        }
    }
}
