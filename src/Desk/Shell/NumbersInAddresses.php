<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\HttpKernel\KernelEvents;

/**
 * A number in an address that is beyond what anything here is numbered by leads nowhere; where a choice of none was
 * sent along, there is none.
 */
final readonly class NumbersInAddresses
{
    private const MOST_DIGITS = 18;

    /** What stands after the question mark; a list that says "all" sends its name and nothing. */
    public static function read(Request $request, string $name, int $none = 0): int
    {
        return '' === $request->query->getString($name) ? $none : $request->query->getInt($name);
    }

    /** Right after the route is known. */
    #[AsEventListener(KernelEvents::REQUEST, priority: 31)]
    public function check(RequestEvent $event): void
    {
        $values = $event->getRequest()->attributes->get('_route_params');
        foreach (is_array($values) ? $values : [] as $value) {
            if (is_string($value) && strlen($value) > self::MOST_DIGITS && ctype_digit($value)) {
                throw new NotFoundHttpException('There is nothing at this address.');
            }
        }
    }
}
