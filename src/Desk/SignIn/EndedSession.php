<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use Symfony\Component\Security\Http\Util\TargetPathTrait;

/**
 * Asks for a sign-in where one is needed. What somebody was typing here when their session ended is kept in the new
 * one, and given back to them after signing in; never to anybody else, and never what another site sends.
 */
final readonly class EndedSession implements AuthenticationEntryPointInterface
{
    use TargetPathTrait;

    public const KEPT = 'kept_form';
    private const MOST_FIELDS = 5000;
    private const MOST_BYTES = 256 * 1024;
    /** What is never kept, whatever it is part of. */
    private const SECRETS = ['_token', 'password', 'old', 'new', 'again', 'code'];

    public function __construct(private UrlGeneratorInterface $urls, private LastHere $last)
    {
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        $fields = $request->request->all();
        $whose = self::isOurs($request) ? $this->last->id($request) : null;
        $isKept = $request->isMethod('POST') && null !== $whose && [] !== $fields;
        $isSmall = count($fields, \COUNT_RECURSIVE) <= self::MOST_FIELDS
            && strlen(serialize($fields)) <= self::MOST_BYTES;
        if ($isKept && $isSmall) {
            $fields = array_diff_key($fields, array_flip(self::SECRETS));
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
        $address = $this->urls->generate('sign_in', self::wanted($request));
        // Nothing of a stranger is kept: where they wanted to go stands in the address.
        if ($request->hasSession()) {
            $this->removeTargetPath($request->getSession(), 'desk');
        }

        return $request->headers->has('HX-Request')
            ? new Response('', Response::HTTP_NO_CONTENT, ['HX-Redirect' => $address])
            : new RedirectResponse($address);
    }

    /** @return array<string, string> */
    private static function wanted(Request $request): array
    {
        $path = $request->getRequestUri();

        return '/' !== $path && $request->isMethod('GET') && !$request->isXmlHttpRequest() ? ['to' => $path] : [];
    }

    /** Whether one of our own pages sent it, as browsers say. */
    private static function isOurs(Request $request): bool
    {
        return in_array($request->headers->get('Sec-Fetch-Site', 'same-origin'), ['same-origin', 'none'], true);
    }
}
