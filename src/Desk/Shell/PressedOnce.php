<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use TallBarrel\Store\Audit\DoneBefore;
use TallBarrel\Store\Audit\PressedActs;

/**
 * A form that is sent twice, because no answer came or a hand was quick, does what it does once: every form of a page
 * brings a key along (assets/js/press.js), which is kept with what was done. The same key and fields again are answered
 * with what happened already.
 */
final readonly class PressedOnce
{
    public const FIELD = '_press';
    private const KEY = '_press_key';

    public function __construct(private PressedActs $acts, private TokenStorageInterface $tokens)
    {
    }

    /** After it is known that the form is ours, before anything is done. */
    #[AsEventListener(KernelEvents::CONTROLLER, priority: -8)]
    public function before(ControllerEvent $event): void
    {
        $key = $event->isMainRequest() ? $this->key($event->getRequest()) : null;
        if (null === $key) {
            return;
        }
        $done = $this->acts->find($key);
        if (null !== $done) {
            $answer = $this->answer($event->getRequest(), $done);
            $event->setController(static fn (): Response => $answer);

            return;
        }
        $event->getRequest()->attributes->set(self::KEY, $key);
        $this->acts->expect($key);
    }

    #[AsEventListener(KernelEvents::RESPONSE)]
    public function after(ResponseEvent $event): void
    {
        $key = $event->isMainRequest() ? $event->getRequest()->attributes->get(self::KEY) : null;
        if (!is_string($key)) {
            return;
        }
        $response = $event->getResponse();
        if ($response->isRedirection()) {
            $this->acts->ledTo($key, (string) $response->headers->get('Location'));
        } elseif ($response->isClientError() && Response::HTTP_CONFLICT !== $response->getStatusCode()) {
            // In a conflict it may be the same press, a moment before, that did it.
            $this->acts->forget($key);
        }
    }

    /** Whether what this request was to do is done, although something went wrong; null where nobody can say. */
    public function wasDone(Request $request): ?bool
    {
        $key = $request->attributes->get(self::KEY);

        return is_string($key) ? null !== $this->acts->find($key) : null;
    }

    /** What the same press, which was quicker, is answered with; null if there was none. */
    public function asPressedBefore(Request $request): ?Response
    {
        $key = $request->attributes->get(self::KEY);
        $done = is_string($key) ? $this->acts->find($key) : null;
        if (null === $done) {
            return null;
        }
        // It is the other's: where it leads is for the other to say.
        $request->attributes->remove(self::KEY);

        return $this->answer($request, $done);
    }

    private function key(Request $request): ?string
    {
        $press = $request->isMethodSafe() ? '' : $request->request->getString(self::FIELD);
        if (1 !== preg_match('/^[0-9a-f]{32}$/', $press)) {
            return null;
        }
        $fields = array_diff_key($request->request->all(), ['_token' => '']);
        $files = $request->files->all();
        // One that did not arrive whole is nowhere.
        array_walk_recursive($files, static function (mixed &$file): void {
            $file = $file instanceof \SplFileInfo && $file->isFile()
                ? (string) hash_file('xxh128', $file->getPathname())
                : '';
        });

        return hash('sha256', serialize([
            $this->tokens->getToken()?->getUserIdentifier(),
            $request->getPathInfo(),
            $fields,
            $files,
        ]));
    }

    private function answer(Request $request, DoneBefore $done): Response
    {
        // Whoever has no session is not given one to be told.
        $session = $request->hasPreviousSession() ? $request->getSession() : null;
        if ($session instanceof \Symfony\Component\HttpFoundation\Session\Session) {
            // Where no answer was given, only a part may be done: what is, is what they see now.
            $session->getFlashBag()->add(null === $done->ledTo ? 'watch' : 'fine', sprintf(
                null === $done->ledTo
                    ? 'This was pressed before, at %s (UTC), and broke off or is not through yet. What is done stands '
                    .'here; look again in a moment, and if something is missing then, do it.'
                    : 'This was done already, at %s (UTC). It was not done twice.',
                $done->at->format('H:i:s'),
            ));
        }
        $from = (string) parse_url((string) $request->headers->get('Referer'), \PHP_URL_PATH);

        return new RedirectResponse($done->ledTo ?? ('' === $from ? '/' : $from), Response::HTTP_SEE_OTHER);
    }
}
