<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** Who does what for us at a supplier. */
#[ORM\Entity]
#[ORM\Table(name: 'supplier_contact')]
class Contact
{
    public const ORDERS = 'orders';
    public const QUOTES = 'quotes';
    public const ACCOUNTS = 'accounts';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** Where they were written to before, until somebody who approves has seen the change; '' where nothing changed. */
    #[ORM\Column(length: 180, options: ['default' => ''])]
    private string $emailBefore = '';

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'contacts'), ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\Column(length: 80)] private string $name,
        #[ORM\Column(length: 180)] private string $email,
        #[ORM\Column(length: 40)] private string $phone,
        /** One of the constants. */
        #[ORM\Column(length: 12, options: ['default' => self::ORDERS])] public readonly string $role = self::ORDERS,
    ) {
        $this->change($name, $email, $phone);
    }

    /** @throws InvalidValue */
    public function change(string $name, string $email, string $phone): void
    {
        if ('' !== $email && false === filter_var($email, \FILTER_VALIDATE_EMAIL)) {
            throw InvalidValue::because(
                sprintf('“%s” is not an email address; expected one such as orders@supplier.example.', $email),
            );
        }
        $this->name = trim($name);
        if ('' !== $this->email && $email !== $this->email) {
            $before = '' === $this->emailBefore ? $this->email : $this->emailBefore;
            $this->emailBefore = $email === $before ? '' : $before;
        }
        $this->email = $email;
        $this->phone = trim($phone);
    }

    public function emailBefore(): string
    {
        return $this->emailBefore;
    }

    /** Somebody who approves has seen where orders go now. */
    public function confirm(): void
    {
        $this->emailBefore = '';
    }

    public function name(): string
    {
        return $this->name;
    }

    public function email(): string
    {
        return $this->email;
    }

    public function phone(): string
    {
        return $this->phone;
    }
}
