<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SupplierPage;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Guesses;

/** What holds for a page that only a link leads to: how often it may be asked for, and how it is answered. */
final readonly class ByLink
{
    public function __construct(
        private RateLimiterFactoryInterface $supplierPageLimiter,
        private Guesses $guesses,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What a link leads to, asked for not too often; whoever guesses is told to wait.
     *
     * @template T of object
     *
     * @param callable(): (T|null) $find
     *
     * @return T|null
     *
     * @throws TooManyRequestsHttpException
     */
    public function take(string $token, Request $request, callable $find): ?object
    {
        $this->guesses->allow($request);
        $found = $find();
        if (null === $found) {
            $this->guesses->note($request);

            return null;
        }
        $limit = $this->supplierPageLimiter->create(hash('sha256', $token))->consume();

        return $limit->isAccepted() ? $found : throw Guesses::tooOften($limit, $this->clock);
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
