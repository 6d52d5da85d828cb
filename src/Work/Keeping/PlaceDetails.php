<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Store\Supplier\Address;

/** An address. */
final class PlaceDetails
{
    public string $street = '';
    public string $postcode = '';
    public string $city = '';
    /** ISO 3166, two letters. */
    public string $country = '';

    public static function of(?Address $address): self
    {
        $place = new self();
        $place->street = $address?->street() ?? '';
        $place->postcode = $address?->postcode() ?? '';
        $place->city = $address?->city() ?? '';
        $place->country = $address?->country() ?? '';

        return $place;
    }

    public function isEmpty(): bool
    {
        return '' === $this->street.$this->city;
    }
}
