<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\BadRequestHttpException;
use Symfony\Component\HttpKernel\KernelEvents;

/**
 * The one door for what is sent: letters that are none, and marks that end a text before its end, come from no page of
 * ours and go no further.
 */
final readonly class OnlyText
{
    private const DEEPEST = 6;

    /** Before anything reads the request. */
    #[AsEventListener(KernelEvents::REQUEST, priority: 300)]
    public function check(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (
            !self::isText(rawurldecode($request->getPathInfo()))
            || !self::holds($request->query->all(), 0)
            || !self::holds($request->request->all(), 0)
        ) {
            throw new BadRequestHttpException('What was sent holds letters that are none. Go back and type it again.');
        }
    }

    private static function holds(mixed $value, int $depth): bool
    {
        if (!is_array($value)) {
            return !is_string($value) || self::isText($value);
        }
        foreach ($value as $name => $one) {
            if ($depth >= self::DEEPEST || !self::isText((string) $name) || !self::holds($one, $depth + 1)) {
                return false;
            }
        }

        return true;
    }

    private static function isText(string $value): bool
    {
        return !str_contains($value, "\0") && mb_check_encoding($value, 'UTF-8');
    }
}
