<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\DriverException;
use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\OptimisticLockException;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Filesystem\Exception\IOExceptionInterface;
use Symfony\Component\HttpFoundation\Exception\RequestExceptionInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use Twig\Environment;

/** What a person sees when something is not there, not allowed, or went wrong. */
final readonly class RefusalPage
{
    /**
     * Gone away or lost in between, refused, shut down, no room on the disk or in a table, read only (MariaDB, "Error
     * Codes").
     */
    private const GONE = [2002, 2006, 2013, 1040, 1053, 1927, 1021, 1030, 1114, 1290, 1836];

    public function __construct(private Environment $twig, private PressedOnce $presses)
    {
    }

    #[AsEventListener(KernelEvents::EXCEPTION, priority: -64)]
    public function show(ExceptionEvent $event): void
    {
        $error = $event->getThrowable();
        // A database that goes away while something is saved is told as a conflict too, and is none.
        $isConflict = !self::isGone($error)
            && ($error instanceof UniqueConstraintViolationException || $error instanceof OptimisticLockException);
        $before = $isConflict ? $this->asPressedBefore($event->getRequest()) : null;
        if (null !== $before) {
            $event->setResponse($before);

            return;
        }
        [$status, $words] = match (true) {
            $error instanceof Refused, $error instanceof InvalidValue => [
                Response::HTTP_UNPROCESSABLE_ENTITY,
                $error->getMessage(),
            ],
            $error instanceof RetryableException => [
                Response::HTTP_CONFLICT,
                'Somebody else was just at work on the same. Nothing of yours was saved; go back and press again.',
            ],
            // What two people do in the same moment; where it is likely, the page says more.
            $isConflict => [
                Response::HTTP_CONFLICT,
                'Somebody else did the same or changed it just now. Nothing of yours was saved; go back, look at it as '
                .'it is now, and try again.',
            ],
            $error instanceof HttpExceptionInterface && 404 === $error->getStatusCode() => [
                404,
                '' === $error->getMessage() || str_starts_with($error->getMessage(), 'No route')
                    ? 'There is nothing at this address.'
                    : $error->getMessage(),
            ],
            $error instanceof HttpExceptionInterface && 403 === $error->getStatusCode() => [
                403,
                str_starts_with($error->getMessage(), 'Access Denied')
                    ? 'Your role does not allow this. Ask the owner if it should.'
                    : $error->getMessage(),
            ],
            $error->getPrevious() instanceof RequestExceptionInterface => [400, 'This request makes no sense here.'],
            $error instanceof HttpExceptionInterface => [$error->getStatusCode(), $error->getMessage()],
            self::isGone($error) => [
                Response::HTTP_SERVICE_UNAVAILABLE,
                'The database cannot be reached, or has no room left. Whoever looks after this machine can see why. '
                .'Nothing of yours is half done; try again in a moment.',
            ],
            $error instanceof IOExceptionInterface => [
                Response::HTTP_SERVICE_UNAVAILABLE,
                'A file could not be written: the disk is full, or may not be written to. Whoever looks after this '
                .'machine can see why. '.$this->whatIs($event->getRequest()),
            ],
            default => [500, 'Something went wrong on our side. '.$this->whatIs($event->getRequest())],
        };
        if (500 === $status && 'test' === ($_SERVER['APP_ENV'] ?? '')) {
            return;
        }
        $event->setResponse(new Response(
            $this->twig->render('refusal.html.twig', [
                'status' => $status,
                'words' => $words,
                'name' => $status >= 500 ? RequestName::of($event->getRequest()) : '',
            ]),
            $status,
            match (true) {
                Response::HTTP_SERVICE_UNAVAILABLE === $status => ['Retry-After' => '10'],
                $error instanceof HttpExceptionInterface => $error->getHeaders(),
                default => [],
            },
        ));
    }

    /** Whether the database was the reason, whatever was under way. */
    private static function isGone(?\Throwable $error): bool
    {
        for (; null !== $error; $error = $error->getPrevious()) {
            $code = $error instanceof \PDOException ? $error->errorInfo[1] ?? $error->getCode() : $error->getCode();
            $isOfDatabase = $error instanceof DriverException || $error instanceof \PDOException;
            if ($error instanceof ConnectionException || ($isOfDatabase && in_array($code, self::GONE, true))) {
                return true;
            }
        }

        return false;
    }

    /** The same press at the same time is answered like one that comes later. */
    private function asPressedBefore(Request $request): ?Response
    {
        try {
            return $this->presses->asPressedBefore($request);
        } catch (\Throwable) {
            return null;
        }
    }

    private function wasDone(Request $request): ?bool
    {
        try {
            return $this->presses->wasDone($request);
        } catch (\Throwable) {
            return null;
        }
    }

    /** Whether it was done before something went wrong. */
    private function whatIs(Request $request): string
    {
        if ($request->isMethodSafe()) {
            return 'Nothing was changed; go back and try again.';
        }

        return match ($this->wasDone($request)) {
            true => 'What you asked for was done before that, and is saved: do not do it again.',
            false => 'Nothing was changed; go back and try again.',
            null => 'Whether it was done shows where you came from: look there before you do it again.',
        };
    }
}
