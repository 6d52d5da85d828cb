<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Store\Person\Person;

/**
 * Who worked at this browser last. It opens nothing: it only tells whose form it was that came after a session had
 * ended. Another site's form does not bring it along.
 */
final readonly class LastHere
{
    private const NAME = 'last_here';
    private const DAYS = 30;

    public function __construct(#[Autowire('%kernel.secret%')] private string $secret)
    {
    }

    public function cookie(Request $request, Person $person): Cookie
    {
        return Cookie::create(self::NAME, $person->id.'.'.$this->sign($person->id))
            ->withExpires(sprintf('+%d days', self::DAYS))
            ->withHttpOnly()
            ->withSecure($request->isSecure())
            ->withSameSite(Cookie::SAMESITE_STRICT);
    }

    /** Their number; null where nobody was, or somebody else wrote it. */
    public function id(Request $request): ?int
    {
        [$id, $sign] = explode('.', (string) $request->cookies->get(self::NAME), 2) + ['', ''];

        return hash_equals($this->sign((int) $id), $sign) ? (int) $id : null;
    }

    private function sign(int $id): string
    {
        return hash_hmac('sha256', self::NAME.$id, $this->secret);
    }
}
