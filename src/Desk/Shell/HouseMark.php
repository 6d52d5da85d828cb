<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\Console\ConsoleEvents;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\CurrentBusiness;
use Twig\Environment;
use Twig\Extension\CoreExtension;

/** Figures are written as this business writes them, on pages, paper and in letters. */
final readonly class HouseMark
{
    public function __construct(private CurrentBusiness $business, private Environment $twig)
    {
    }

    /** After it is known that there is a business. */
    #[AsEventListener(KernelEvents::REQUEST, priority: 19)]
    public function forRequest(): void
    {
        $this->write($this->business->find()?->decimalMark() ?? Numerals::POINT);
    }

    #[AsEventListener(ConsoleEvents::COMMAND)]
    public function forCommand(): void
    {
        try {
            $this->forRequest();
        } catch (\Throwable) {
            // Some commands make the database in the first place.
            $this->write(Numerals::POINT);
        }
    }

    private function write(string $mark): void
    {
        Format::writeWith(Numerals::COMMA === $mark ? $mark : Numerals::POINT);
        $this->twig->getExtension(CoreExtension::class)
            ->setNumberFormat(0, $mark, Numerals::POINT === $mark ? ',' : '.');
    }
}
