<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\OfferTerms as CoreOffer;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Store\Offer\Offer;

/** An offer that could be bought from today, with all that is compared. */
final readonly class Candidate
{
    public function __construct(
        public Offer $offer,
        public CoreOffer $asked,
        public Seller $seller,
        public Alongside $alongside,
    ) {
    }
}
