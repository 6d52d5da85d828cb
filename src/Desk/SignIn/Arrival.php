<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Visits;

/** Somebody came in: their visit begins, and what they see begins with the site they work at. */
final readonly class Arrival
{
    public const VISIT = 'visit';
    /** Set while a one-time code is still due. */
    public const CODE_DUE = 'code_due';

    public function __construct(private Visits $visits)
    {
    }

    public function note(Request $request, Person $person): void
    {
        $session = $request->getSession();
        $visit = $this->visits->begin(
            $person,
            (string) $request->headers->get('User-Agent'),
            (string) $request->getClientIp(),
        );
        $session->set(self::VISIT, $visit->id);
        if (null !== $person->site()) {
            $session->set('site', $person->site()->id);
        }
    }
}
