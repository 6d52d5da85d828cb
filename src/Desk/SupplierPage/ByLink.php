<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SupplierPage;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use TallBarrel\Desk\Shell\Fields;

/** What holds for a page that only a link leads to: how often it may be asked for, and how it is answered. */
final readonly class ByLink
{
    public function __construct(private RateLimiterFactoryInterface $supplierPageLimiter, private ClockInterface $clock)
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

    /**
     * To be filled with the page: seen by nobody else, kept nowhere, and telling no other site where it was.
     *
     * @param bool $known whether the link leads anywhere
     */
    public function answer(bool $known, Fields $fields): Response
    {
        return new Response(
            status: $known ? ($fields->isGood() ? 200 : 422) : 404,
            headers: [
                'X-Robots-Tag' => 'noindex',
                'Referrer-Policy' => 'no-referrer',
                'Cache-Control' => 'private, no-store',
            ],
        );
    }
}
