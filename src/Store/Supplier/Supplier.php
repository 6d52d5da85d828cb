<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Store\Type\BigDecimalType;

/** Who sells to us. */
#[ORM\Entity]
class Supplier
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(nullable: true)]
    private ?int $netDays = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $discountPercent;

    #[ORM\Column]
    private int $discountDays = 0;

    /** Incoterm 2020 and place, such as "DAP Ferry Lane". */
    #[ORM\Column(length: 80)]
    private string $deliveryTerms = '';

    /** ISO weekdays separated by commas; empty for Monday to Friday. */
    #[ORM\Column(length: 20)]
    private string $orderWeekdays = '';

    #[ORM\Column(length: 5)]
    private string $cutOff = '16:00';

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $minimumValue = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $freeFreightFrom = null;

    /** What the freight of an order costs below the free limit. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $freight = null;

    /** Kilograms that fill a load, where an order pays best as a full one. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 1, nullable: true)]
    private ?BigDecimal $fullLoadKg = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $taxPercent;

    #[ORM\Column(length: 300)]
    private string $caution = '';

    #[ORM\Column(length: 500)]
    private string $standingNote = '';

    /** @var Collection<int, Address> */
    #[ORM\OneToMany(targetEntity: Address::class, mappedBy: 'supplier', cascade: ['persist'])]
    private Collection $addresses;

    /** @var Collection<int, Contact> */
    #[ORM\OneToMany(targetEntity: Contact::class, mappedBy: 'supplier', cascade: ['persist'])]
    private Collection $contacts;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)]
        public readonly string $code,
        #[ORM\Column(length: 120)]
        private string $name,
        #[ORM\Column(length: 3)]
        private string $currency,
    ) {
        $this->discountPercent = BigDecimal::zero();
        $this->taxPercent = BigDecimal::zero();
        $this->addresses = new ArrayCollection();
        $this->contacts = new ArrayCollection();
        $this->rename($name);
        $this->tradeIn($currency);
    }

    /** @throws InvalidValue */
    public function rename(string $name): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('A supplier needs a name.');
    }

    /** @throws InvalidValue if there is no such currency */
    public function tradeIn(string $currency): void
    {
        $this->currency = Currency::of($currency)->code;
    }

    public function agreeTerms(PaymentTerms $terms): void
    {
        $this->netDays = $terms->netDays;
        $this->discountPercent = $terms->discountPercent;
        $this->discountDays = $terms->discountDays;
    }

    /** @throws InvalidValue */
    public function takesOrders(string $weekdays, string $cutOff): void
    {
        $days = '' === trim($weekdays) ? [] : array_map(intval(...), explode(',', $weekdays));
        OrderDays::of($days, $cutOff);
        $this->orderWeekdays = implode(',', $days);
        $this->cutOff = $cutOff;
    }

    /** @param BigDecimal|null $freeFreightFrom in the supplier's currency, as the minimum */
    public function asksFor(?BigDecimal $minimumValue, ?BigDecimal $freeFreightFrom): void
    {
        $this->minimumValue = $minimumValue;
        $this->freeFreightFrom = $freeFreightFrom;
    }

    /** @param BigDecimal|null $freight of an order below the free limit, in the supplier's currency */
    public function ships(?BigDecimal $freight, ?BigDecimal $fullLoadKg): void
    {
        $this->freight = $freight;
        $this->fullLoadKg = $fullLoadKg;
    }

    public function deliversAs(string $terms, BigDecimal $taxPercent): void
    {
        $this->deliveryTerms = $terms;
        $this->taxPercent = $taxPercent;
    }

    public function remember(string $caution, string $standingNote): void
    {
        $this->caution = trim($caution);
        $this->standingNote = trim($standingNote);
    }

    public function moveTo(string $street, string $postcode, string $city, string $country): void
    {
        $address = $this->address();
        if (null === $address) {
            $this->addresses->add(new Address($this, $street, $postcode, $city, $country));
        } else {
            $address->change($street, $postcode, $city, $country);
        }
    }

    /** @throws InvalidValue if the email address is not one */
    public function orderThrough(string $name, string $email, string $phone = ''): void
    {
        $contact = $this->contact();
        if (null === $contact) {
            $this->contacts->add(new Contact($this, $name, $email, $phone));
        } else {
            $contact->change($name, $email, $phone);
        }
    }

    public function name(): string
    {
        return $this->name;
    }

    /** The first word, for where there is little room. */
    public function shortName(): string
    {
        return explode(' ', $this->name)[0];
    }

    public function currency(): Currency
    {
        return Currency::of($this->currency);
    }

    public function terms(): ?PaymentTerms
    {
        return null === $this->netDays ? null : PaymentTerms::net($this->netDays, $this->discountPercent, $this->discountDays);
    }

    public function orderDays(): OrderDays
    {
        return OrderDays::of('' === $this->orderWeekdays ? [] : array_map(intval(...), explode(',', $this->orderWeekdays)), $this->cutOff);
    }

    public function orderWeekdays(): string
    {
        return $this->orderWeekdays;
    }

    public function minimum(): ?Money
    {
        return null === $this->minimumValue ? null : Money::of($this->minimumValue, $this->currency);
    }

    public function freeFreightFrom(): ?Money
    {
        return null === $this->freeFreightFrom ? null : Money::of($this->freeFreightFrom, $this->currency);
    }

    public function freight(): ?Money
    {
        return null === $this->freight ? null : Money::of($this->freight, $this->currency);
    }

    public function fullLoadKg(): ?BigDecimal
    {
        return $this->fullLoadKg;
    }

    public function deliveryTerms(): string
    {
        return $this->deliveryTerms;
    }

    public function taxPercent(): BigDecimal
    {
        return $this->taxPercent;
    }

    public function caution(): string
    {
        return $this->caution;
    }

    public function standingNote(): string
    {
        return $this->standingNote;
    }

    public function address(): ?Address
    {
        return $this->addresses->first() ?: null;
    }

    public function contact(): ?Contact
    {
        return $this->contacts->first() ?: null;
    }

    public function version(): int
    {
        return $this->version;
    }

    /** @return array{contact: string, email: string, address: string, terms: string} what an order needs of a supplier, empty where missing */
    public function facts(): array
    {
        return [
            'contact' => $this->contact()?->name() ?? '',
            'email' => $this->contact()?->email() ?? '',
            'address' => $this->address()?->oneLine() ?? '',
            'terms' => $this->terms()?->label() ?? '',
        ];
    }
}
