<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\RateLimiter\AbstractRequestRateLimiter;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\LimiterInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;

/**
 * How often a sign-in may fail: by the address typed, from one place, and for one person from everywhere. Who worked at
 * this browser before has tries of their own, so that nobody locks them out by guessing.
 */
final class Tries extends AbstractRequestRateLimiter
{
    public function __construct(
        private readonly People $people,
        private readonly LastHere $last,
        #[Autowire(service: 'limiter.sign_in')] private readonly RateLimiterFactoryInterface $typed,
        #[Autowire(service: 'limiter.sign_in_from')] private readonly RateLimiterFactoryInterface $from,
        #[Autowire(service: 'limiter.sign_in_of')] private readonly RateLimiterFactoryInterface $of,
    ) {
    }

    /** @return list<LimiterInterface> */
    protected function getLimiters(Request $request): array
    {
        $address = People::spelling($request->request->getString('email'));
        $here = $this->last->id($request);
        if (null !== $here && $this->people->idOf($address) === $here) {
            return [$this->typed->create('here-'.$here)];
        }
        $place = (string) $request->getClientIp();
        $from = $this->from->create($place);
        if ($from->consume(0)->getRemainingTokens() < 1) {
            return [$from];
        }
        // Whatever was typed: a long one is no longer key.
        $whose = hash('sha256', $address);

        return [
            $this->typed->create($whose.' '.$place),
            $from,
            $this->of->create($whose),
        ];
    }
}
