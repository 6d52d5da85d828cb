<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\ORM\Events;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;

/** Who is taxed at a rate by name finds the one that holds today. */
#[AsEntityListener(Events::postLoad, entity: Supplier::class)]
#[AsEntityListener(Events::postLoad, entity: Item::class)]
final readonly class AttachTaxRates
{
    public function __construct(private TaxRates $rates)
    {
    }

    public function postLoad(Supplier|Item $taxed): void
    {
        $taxed->lookUpTaxIn($this->rates);
    }
}
