<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationSuccessHandlerInterface;
use TallBarrel\Store\Person\Person;

/** After signing in: back to what was being done, or to Today. */
final readonly class Welcome implements AuthenticationSuccessHandlerInterface
{
    public function __construct(
        private UrlGeneratorInterface $urls,
        private Arrival $arrival,
        private LastHere $last,
    ) {
    }

    public function onAuthenticationSuccess(Request $request, TokenInterface $token): Response
    {
        $session = $request->getSession();
        $person = $token->getUser();
        if ($person instanceof Person) {
            $this->arrival->note($request, $person);
            $kept = $session->get(EndedSession::KEPT);
            if (is_array($kept) && $kept['whose'] !== $person->id) {
                $session->remove(EndedSession::KEPT);
            }
            $wanted = self::wanted($request);
            $isCodeDue = null !== $person->codeSecret();
            if ($isCodeDue) {
                $session->set(Arrival::CODE_DUE, true);
            }
            $next = $isCodeDue
                ? new RedirectResponse($this->urls->generate('sign_in_code', '' === $wanted ? [] : ['to' => $wanted]))
                : $this->onward($request);
            $next->headers->setCookie($this->last->cookie($request, $person));

            return $next;
        }

        return $this->onward($request);
    }

    /** To where somebody who is in goes on. */
    public function onward(Request $request): Response
    {
        $session = $request->getSession();
        if ($session->has(EndedSession::KEPT)) {
            return new RedirectResponse($this->urls->generate('kept_form'));
        }
        $wanted = self::wanted($request);

        return new RedirectResponse('' === $wanted ? $this->urls->generate('today') : $wanted);
    }

    /** Where somebody was going: a page of ours, or nothing. */
    public static function wanted(Request $request): string
    {
        $to = $request->query->getString('to');

        return 1 === preg_match('#^/(?![/\\\\])[^\x00-\x1f\\\\]{0,500}$#', $to) ? $to : '';
    }
}
