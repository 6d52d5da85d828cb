<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\ORM\Events;

/** Whoever reads an offer gets its prices with what was agreed beyond it, so that no caller has to remember. */
#[AsEntityListener(Events::postLoad, entity: Offer::class)]
final readonly class AttachAgreedPrices
{
    public function __construct(private PriceTerms $terms)
    {
    }

    public function postLoad(Offer $offer): void
    {
        $offer->fallUnder($this->terms);
    }
}
