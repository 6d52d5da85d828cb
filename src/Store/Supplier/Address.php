<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Doctrine\ORM\Mapping as ORM;

/** Where a supplier is written to. */
#[ORM\Entity]
#[ORM\Table(name: 'supplier_address')]
class Address
{
    public const ORDER = 'order';
    public const PAY = 'pay';
    public const SHIP_FROM = 'ship-from';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'addresses'), ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\Column(length: 120)] private string $street,
        #[ORM\Column(length: 20)] private string $postcode,
        #[ORM\Column(length: 80)] private string $city,
        /** ISO 3166 alpha-2. */
        #[ORM\Column(length: 2)] private string $country,
        /** One of the constants: where orders, payments and the goods go or come from. */
        #[ORM\Column(length: 12, options: ['default' => self::ORDER])] public readonly string $role = self::ORDER,
    ) {
    }

    public function change(string $street, string $postcode, string $city, string $country): void
    {
        $this->street = $street;
        $this->postcode = $postcode;
        $this->city = $city;
        $this->country = $country;
    }

    public function street(): string
    {
        return $this->street;
    }

    public function postcode(): string
    {
        return $this->postcode;
    }

    public function city(): string
    {
        return $this->city;
    }

    public function country(): string
    {
        return $this->country;
    }

    public function oneLine(): string
    {
        return implode(
            ', ',
            array_filter(
                [$this->street, trim($this->postcode.' '.$this->city), $this->country],
                static fn (string $part): bool => '' !== $part,
            ),
        );
    }
}
