<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

/** What was missing of the supplier, typed on the order's page. Empty: left as it is. */
final readonly class SupplierMending
{
    public function __construct(
        public string $contact = '',
        public string $email = '',
        public string $street = '',
        public string $postcode = '',
        public string $city = '',
        public string $country = '',
        public string $netDays = '',
    ) {
    }
}
