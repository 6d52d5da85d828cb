<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;

/**
 * Asks for a sign-in where one is needed. What somebody was typing here when their session ended is kept in the new
 * one, and given back to them after signing in; never to anybody else, and never what another site sends.
 */
final readonly class EndedSession implements AuthenticationEntryPointInterface
{
    public const KEPT = 'kept_form';
    private const MOST_FIELDS = 5000;

    public function __construct(private UrlGeneratorInterface $urls, private LastHere $last)
    {
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        $fields = $request->request->all();
        $whose = self::isOurs($request) ? $this->last->id($request) : null;
        $isKept = $request->isMethod('POST') && null !== $whose && [] !== $fields;
        if ($isKept && count($fields, \COUNT_RECURSIVE) <= self::MOST_FIELDS) {
            unset($fields['_token']);
            $back = $request->headers->get('HX-Current-URL') ?? $request->getPathInfo();
            $request
                ->getSession()
                ->set(self::KEPT, [
                    'whose' => $whose,
                    'path' => $request->getPathInfo(),
                    'fields' => $fields,
                    'page' => (string) parse_url($back, \PHP_URL_PATH),
                ]);
        }
        $address = $this->urls->generate('sign_in');

        return $request->headers->has('HX-Request')
            ? new Response('', Response::HTTP_NO_CONTENT, ['HX-Redirect' => $address])
            : new RedirectResponse($address);
    }

    /** Whether one of our own pages sent it, as browsers say. */
    private static function isOurs(Request $request): bool
    {
        return in_array($request->headers->get('Sec-Fetch-Site', 'same-origin'), ['same-origin', 'none'], true);
    }
}
