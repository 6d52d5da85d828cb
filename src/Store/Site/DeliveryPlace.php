<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** Where goods may be sent that is no site of ours: a customer's yard, a fair. */
#[ORM\Entity]
class DeliveryPlace
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue without a name or an address */
    public function __construct(
        #[ORM\Column(length: 80, unique: true)] private string $name,
        #[ORM\Column(length: 200)] private string $address,
    ) {
        $this->change($name, $address);
    }

    /** @throws InvalidValue without a name or an address */
    public function change(string $name, string $address): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('The place needs a name.');
        $this->address =
            '' !== trim($address) ? trim($address) : throw InvalidValue::because('Say where it is.');
    }

    public function name(): string
    {
        return $this->name;
    }

    public function address(): string
    {
        return $this->address;
    }
}
