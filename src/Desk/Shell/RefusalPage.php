<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\OptimisticLockException;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
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
    public function __construct(private Environment $twig)
    {
    }

    #[AsEventListener(KernelEvents::EXCEPTION, priority: -64)]
    public function show(ExceptionEvent $event): void
    {
        $error = $event->getThrowable();
        [$status, $words] = match (true) {
            $error instanceof Refused, $error instanceof InvalidValue => [
                Response::HTTP_UNPROCESSABLE_ENTITY,
                $error->getMessage(),
            ],
            // What two people do in the same moment; where it is likely, the page says more.
            $error instanceof UniqueConstraintViolationException, $error instanceof OptimisticLockException => [
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
            $error instanceof HttpExceptionInterface => [$error->getStatusCode(), $error->getMessage()],
            default => [500, 'Something went wrong on our side. Nothing was changed; go back and try again.'],
        };
        if (500 === $status && 'test' === ($_SERVER['APP_ENV'] ?? '')) {
            return;
        }
        $event->setResponse(
            new Response($this->twig->render('refusal.html.twig', ['status' => $status, 'words' => $words]), $status),
        );
    }
}
