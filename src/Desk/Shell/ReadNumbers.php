<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\TaxRates;

/** What is typed into any form is read as the business writes it: its decimal mark, its names of tax rates. */
final readonly class ReadNumbers
{
    public function __construct(private CurrentBusiness $business, private TaxRates $taxes)
    {
    }

    #[AsEventListener(KernelEvents::CONTROLLER)]
    public function carry(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        if ($request->request->count() > 0 || $request->query->count() > 0) {
            $mark = $this->business->find()?->decimalMark() ?? Numerals::POINT;
            $request->attributes->set(Fields::NUMERALS, Numerals::with($mark));
            $request->attributes->set(Fields::TAXES, $this->taxes);
        }
    }
}
