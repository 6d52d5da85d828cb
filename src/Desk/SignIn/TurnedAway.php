<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\InvalidCsrfTokenException;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\SecurityRequestAttributes;
use Twig\Environment;

/** Whoever is not let in is told so on the page they are on; nothing is kept of it in a session. */
final readonly class TurnedAway implements AuthenticationFailureHandlerInterface
{
    private const SECONDS = 300;

    public function __construct(private Environment $twig)
    {
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        $request->getSession()->remove(SecurityRequestAttributes::LAST_USERNAME);
        // How it was seen that the form is ours would begin a session.
        $request->attributes->remove('csrf-token');
        [$status, $words] = match (true) {
            $exception instanceof TooManyLoginAttemptsAuthenticationException => [
                Response::HTTP_TOO_MANY_REQUESTS,
                'Too many tries. Wait five minutes, then try again.',
            ],
            $exception instanceof InvalidCsrfTokenException => [
                Response::HTTP_FORBIDDEN,
                'This page was open for too long. Try again.',
            ],
            default => [
                Response::HTTP_UNPROCESSABLE_ENTITY,
                'That email address and password do not belong together.',
            ],
        };
        $page = $this->twig->render('sign_in/sign_in.html.twig', [
            'email' => mb_substr(mb_scrub($request->request->getString('email')), 0, 180),
            'error' => $words,
            'kept' => false,
            'to' => Welcome::wanted($request),
        ]);

        return new Response(
            $page,
            $status,
            Response::HTTP_TOO_MANY_REQUESTS === $status ? ['Retry-After' => (string) self::SECONDS] : [],
        );
    }
}
