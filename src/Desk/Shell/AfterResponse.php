<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\TerminateEvent;
use Symfony\Component\HttpKernel\KernelEvents;

/** Long work, done in the same process once the page has been sent. */
final class AfterResponse
{
    private const SECONDS = 600;

    /** @var list<callable(): void> */
    private array $work = [];

    /** @param callable(): void $work */
    public function do(callable $work): void
    {
        $this->work[] = $work;
    }

    #[AsEventListener(KernelEvents::TERMINATE)]
    public function run(TerminateEvent $event): void
    {
        $work = $this->work;
        $this->work = [];
        foreach ($work as $one) {
            set_time_limit(self::SECONDS);
            $one();
        }
    }
}
