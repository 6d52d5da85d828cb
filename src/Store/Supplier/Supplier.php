<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\CsvLayout;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Ordering\PaperLanguage;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\Incoterm;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Store\Business\TaxRates;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * Who sells to us.
 *
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 */
#[ORM\Entity]
class Supplier implements PlanningRestsOnIt
{
    private const TERMS = 'terms of payment';
    private const PAYEE = 'paid to';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Embedded(columnPrefix: false)]
    private AgreedTerms $terms;

    /** Incoterm 2020 and place, such as "DAP Ferry Lane". */
    #[ORM\Column(length: 80)]
    private string $deliveryTerms = '';

    /** @var list<string> others that may be agreed for an order */
    #[ORM\Column(type: 'json')]
    private array $otherDeliveryTerms = [];

    #[ORM\Embedded(columnPrefix: false)]
    private OrderWindow $window;

    #[ORM\Embedded(columnPrefix: false)]
    private LeastOrder $least;

    #[ORM\Embedded(columnPrefix: false)]
    private Freight $freight;

    #[ORM\Embedded(columnPrefix: false)]
    private AgreedTolerance $tolerance;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $taxPercent;

    #[ORM\Column(length: 2, enumType: TaxCategory::class)]
    private TaxCategory $taxCategory = TaxCategory::ZeroRated;

    /** By name, where it follows a rate of ours from day to day; empty for the rate above. */
    #[ORM\Column(length: 30, options: ['default' => ''])]
    private string $taxName = '';

    private ?TaxRates $rates = null;

    /** @var list<AllowanceChargeData> charges and allowances that every order to them begins with */
    #[ORM\Column(type: 'json')]
    private array $standingAdjustments = [];

    #[ORM\Column(length: 300)]
    private string $caution = '';

    #[ORM\Column(length: 500)]
    private string $standingNote = '';

    /** Suppliers that are priced alike; empty for none. */
    #[ORM\Column(length: 40, options: ['default' => ''])]
    private string $priceGroup = '';

    /** For ourselves. */
    #[ORM\Column(length: 2000, options: ['default' => ''])]
    private string $notes = '';

    /** Where it is paid, if not directly. */
    #[ORM\ManyToOne]
    private ?Supplier $paidThrough = null;

    /** @var array<string, string>|null what somebody who approves saw agreed last, where it differs now */
    #[ORM\Column(type: 'json', nullable: true)]
    private ?array $agreedBefore = null;

    /** Who usually buys from it. */
    #[ORM\ManyToOne]
    private ?Person $buyer = null;

    /** Whether the lines also go out as a CSV file with the order. */
    #[ORM\Column(options: ['default' => false])]
    private bool $wantsCsv = false;

    #[ORM\Column(options: ['default' => false])]
    private bool $wantsXml = false;

    /** Whether all they send is looked at before it may be sold. */
    #[ORM\Column(options: ['default' => false])]
    private bool $inspected = false;

    #[ORM\Column(length: 1000)]
    private string $csvColumns = '';

    #[ORM\Column(length: 1)]
    private string $csvDelimiter = ',';

    #[ORM\Column(length: 60)]
    private string $csvFilename = '';

    /** In which language their orders are written. */
    #[ORM\Column(length: 2, enumType: PaperLanguage::class)]
    private PaperLanguage $paperLanguage = PaperLanguage::English;

    /** Whether prices stand on their orders. */
    #[ORM\Column]
    private bool $paperPrices = true;

    /** Since when it is no longer bought from. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $archivedOn = null;

    /** @var Collection<int, Address> */
    #[ORM\OneToMany(targetEntity: Address::class, mappedBy: 'supplier', cascade: ['persist'], orphanRemoval: true)]
    private Collection $addresses;

    /** @var Collection<int, Contact> */
    #[ORM\OneToMany(targetEntity: Contact::class, mappedBy: 'supplier', cascade: ['persist'], orphanRemoval: true)]
    private Collection $contacts;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $code,
        #[ORM\Column(length: 120)] private string $name,
        #[ORM\Column(length: 3)] private string $currency,
    ) {
        $this->terms = AgreedTerms::none();
        $this->window = new OrderWindow();
        $this->least = new LeastOrder();
        $this->freight = new Freight();
        $this->tolerance = AgreedTolerance::of(null, null);
        $this->taxPercent = BigDecimal::zero();
        $this->addresses = new ArrayCollection();
        $this->contacts = new ArrayCollection();
        $this->rename($name);
        $this->tradeIn($currency);
    }

    public function belongTo(string $priceGroup): void
    {
        $this->priceGroup = trim((string) preg_replace('/\s+/u', ' ', $priceGroup));
    }

    public function priceGroup(): string
    {
        return $this->priceGroup;
    }

    /** @param \DateTimeImmutable|null $on null to take it up again */
    public function archive(?\DateTimeImmutable $on): void
    {
        $this->archivedOn = $on;
    }

    public function isArchived(): bool
    {
        return null !== $this->archivedOn;
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
        $before = $this->terms()?->label();
        $this->terms = AgreedTerms::of($terms);
        if (null !== $before) {
            $this->wasBefore(self::TERMS, $before, $terms->label());
        }
    }

    private function wasBefore(string $what, string $was, string $is): void
    {
        $before = $this->agreedBefore ?? [];
        $before[$what] ??= $was;
        if ($before[$what] === $is) {
            unset($before[$what]);
        }
        $this->agreedBefore = [] === $before ? null : $before;
    }

    /** @return list<UnseenChange> of where orders go, how and to whom they are paid */
    public function unseen(): array
    {
        $unseen = [];
        $contact = $this->contact();
        if (null !== $contact && '' !== $contact->emailBefore()) {
            $unseen[] = new UnseenChange('orders go to', $contact->emailBefore(), $contact->email());
        }
        foreach ($this->agreedBefore ?? [] as $what => $was) {
            $is = self::TERMS === $what ? (string) $this->terms()?->label() : $this->payee();
            $unseen[] = new UnseenChange($what, $was, $is);
        }

        return $unseen;
    }

    /** Somebody who approves has seen all of it. */
    public function seen(): void
    {
        $this->contact()?->confirm();
        $this->agreedBefore = null;
    }

    private function payee(): string
    {
        return $this->paidThrough->name ?? $this->name;
    }

    /** @throws InvalidValue */
    public function takesAtLeast(?BigDecimal $kilograms, ?int $packs): void
    {
        $this->least = LeastOrder::of($this->least->value(), $kilograms, $packs);
    }

    /**
     * How freight is reckoned; the amount and the free limit are set by ships() and asksFor().
     *
     * @param string $steps for freight by weight
     *
     * @throws InvalidValue
     */
    public function reckonsFreight(string $kind, string $steps = '', ?BigDecimal $palletKg = null): void
    {
        $this->freight = $this->freight->reckonedBy($kind, $steps, $palletKg);
    }

    /** @throws InvalidValue if it would be paid through itself */
    public function isPaidThrough(?self $other): void
    {
        for ($payee = $other; null !== $payee; $payee = $payee->paidThrough) {
            if ($payee === $this) {
                throw InvalidValue::because(
                    sprintf(
                        '%s cannot be paid through %s: that one is paid through it.',
                        $this->name,
                        $other->name ?? '',
                    ),
                );
            }
        }
        $before = $this->payee();
        $this->paidThrough = $other;
        $this->wasBefore(self::PAYEE, $before, $this->payee());
    }

    public function isBoughtFromBy(?Person $buyer): void
    {
        $this->buyer = $buyer;
    }

    /**
     * @param bool $csv whether a file of the lines goes with them
     * @param bool $xml whether the order goes as UBL with them
     */
    public function wantsOrders(bool $csv, bool $xml): void
    {
        $this->wantsCsv = $csv;
        $this->wantsXml = $xml;
    }

    public function jot(string $notes): void
    {
        $this->notes = trim($notes);
    }

    /** @throws InvalidValue */
    public function takesOrders(string $weekdays, string $cutOff): void
    {
        $this->window = OrderWindow::of($weekdays, $cutOff);
    }

    /** @param BigDecimal|null $freeFreightFrom in the supplier's currency, as the minimum */
    public function asksFor(?BigDecimal $minimumValue, ?BigDecimal $freeFreightFrom): void
    {
        $this->least = LeastOrder::of($minimumValue, $this->least->kilograms(), $this->least->packs());
        $this->freight = $this->freight->freeFrom($freeFreightFrom);
    }

    /** @param BigDecimal|null $freight of an order below the free limit, in the supplier's currency */
    public function ships(?BigDecimal $freight, ?BigDecimal $fullLoadKg): void
    {
        $this->freight = $this->freight->costing($freight, $fullLoadKg);
    }

    /** @throws InvalidValue unless empty, or a rule of Incoterms 2020 and a place */
    public function deliversAs(string $terms, Tax $tax): void
    {
        if ('' !== trim($terms) && $terms !== $this->deliveryTerms) {
            [$rule, $place] = Incoterm::read($terms);
            $terms = $rule->value.' '.$place;
        }
        $this->deliveryTerms = $terms;
        $this->taxPercent = $tax->percent;
        $this->taxCategory = $tax->category;
    }

    /**
     * Other terms than the usual ones, a rule of Incoterms 2020 and a place each.
     *
     * @param list<string> $terms
     *
     * @throws InvalidValue
     */
    public function mayAlsoDeliverAs(array $terms): void
    {
        $others = [];
        foreach ($terms as $one) {
            [$rule, $place] = Incoterm::read($one);
            $others[] = $rule->value.' '.$place;
        }
        $this->otherDeliveryTerms = array_values(array_unique($others));
    }

    /** @return list<string> the usual ones first */
    public function allDeliveryTerms(): array
    {
        return array_values(array_diff(array_unique([$this->deliveryTerms, ...$this->otherDeliveryTerms]), ['']));
    }

    /** @return list<string> */
    public function otherDeliveryTerms(): array
    {
        return $this->otherDeliveryTerms;
    }

    /** @param list<AllowanceCharge> $adjustments */
    public function adjusts(array $adjustments): void
    {
        $this->standingAdjustments = array_map(
            static fn (AllowanceCharge $adjustment): array => $adjustment->toArray(),
            $adjustments,
        );
    }

    /** @return list<AllowanceCharge> */
    public function standingAdjustments(): array
    {
        return array_map(AllowanceCharge::fromArray(...), $this->standingAdjustments);
    }

    /** @throws InvalidValue */
    public function mayAsk(?BigDecimal $morePercent, ?BigDecimal $moreAmount): void
    {
        $this->tolerance = AgreedTolerance::of($morePercent, $moreAmount);
    }

    /** What its invoices may ask beyond what was agreed. */
    public function tolerance(): AgreedTolerance
    {
        return $this->tolerance;
    }

    public function remember(string $caution, string $standingNote): void
    {
        $this->caution = trim($caution);
        $this->standingNote = trim($standingNote);
    }

    /**
     * Where it is in a role; all empty: as where orders go.
     *
     * @throws InvalidValue unless the country is a code of two letters
     */
    public function moveTo(
        string $street,
        string $postcode,
        string $city,
        string $country,
        string $role = Address::ORDER,
    ): void {
        $address = $this->addressFor($role, true);
        if ('' === $street.$postcode.$city && Address::ORDER !== $role) {
            null === $address || $this->addresses->removeElement($address);

            return;
        }
        if (1 !== preg_match('/^[A-Za-z]{2}$/', $country)) {
            throw InvalidValue::because(
                sprintf('“%s” is not a country code; expected two letters such as IE.', $country),
            );
        }
        $country = strtoupper($country);
        if (null === $address) {
            $this->addresses->add(new Address($this, $street, $postcode, $city, $country, $role));
        } else {
            $address->change($street, $postcode, $city, $country);
        }
    }

    /**
     * Who is written to in a role; all empty: whoever takes orders.
     *
     * @throws InvalidValue if the email address is not one
     */
    public function orderThrough(string $name, string $email, string $phone = '', string $role = Contact::ORDERS): void
    {
        $contact = $this->contactFor($role, true);
        if ('' === $name.$email && Contact::ORDERS !== $role) {
            null === $contact || $this->contacts->removeElement($contact);

            return;
        }
        if (null === $contact) {
            $this->contacts->add(new Contact($this, $name, $email, $phone, $role));
        } else {
            $contact->change($name, $email, $phone);
        }
    }

    /** Takes over from a similar supplier what the two are likely to share: terms, freight, days; nobody's address. */
    public function beLike(self $other): void
    {
        $this->terms = clone $other->terms;
        $this->window = clone $other->window;
        $this->least = clone $other->least;
        $this->freight = clone $other->freight;
        $this->tolerance = clone $other->tolerance;
        $this->deliveryTerms = $other->deliveryTerms;
        $this->taxPercent = $other->taxPercent;
        $this->taxCategory = $other->taxCategory;
        $this->standingAdjustments = $other->standingAdjustments;
        $this->standingNote = $other->standingNote;
        $this->buyer = $other->buyer;
        $this->wantsCsv = $other->wantsCsv;
        $this->wantsXml = $other->wantsXml;
        $this->inspected = $other->inspected;
        $this->paperLanguage = $other->paperLanguage;
        $this->paperPrices = $other->paperPrices;
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
        return $this->terms->terms();
    }

    public function orderDays(): OrderDays
    {
        return $this->window->days();
    }

    public function orderWeekdays(): string
    {
        return $this->window->weekdays();
    }

    public function minimum(): ?Money
    {
        return $this->money($this->least->value());
    }

    public function freeFreightFrom(): ?Money
    {
        return $this->money($this->freight->isFreeFrom());
    }

    public function freight(): ?Money
    {
        return $this->money($this->freight->cost());
    }

    private function money(?BigDecimal $amount): ?Money
    {
        return null === $amount ? null : Money::of($amount, $this->currency);
    }

    public function fullLoadKg(): ?BigDecimal
    {
        return $this->freight->fullLoadKg();
    }

    public function deliveryTerms(): string
    {
        return $this->deliveryTerms;
    }

    /** What holds today. */
    public function tax(): Tax
    {
        $named = '' === $this->taxName ? null : $this->rates?->named($this->taxName);

        return $named ?? Tax::percent($this->taxPercent, $this->taxCategory);
    }

    /** @param string $name of one of our rates; empty for a rate of its own */
    public function isTaxedBy(string $name): void
    {
        $this->taxName = trim($name);
    }

    public function taxName(): string
    {
        return $this->taxName;
    }

    public function lookUpTaxIn(TaxRates $rates): void
    {
        $this->rates = $rates;
    }

    public function caution(): string
    {
        return $this->caution;
    }

    public function standingNote(): string
    {
        return $this->standingNote;
    }

    /** Where orders go. */
    public function address(): ?Address
    {
        return $this->addressFor(Address::ORDER) ?? ($this->addresses->first() ?: null);
    }

    public function addressFor(string $role, bool $only = false): ?Address
    {
        return $this->addresses->findFirst(static fn (int $i, Address $address): bool => $address->role === $role) ??
            ($only || Address::ORDER === $role ? null : $this->addressFor(Address::ORDER));
    }

    /** Who takes orders. */
    public function contact(): ?Contact
    {
        return $this->contactFor(Contact::ORDERS) ?? ($this->contacts->first() ?: null);
    }

    /** Who is asked in a role, or who takes orders where nobody has it. */
    public function contactFor(string $role, bool $only = false): ?Contact
    {
        return $this->contacts->findFirst(static fn (int $i, Contact $contact): bool => $contact->role === $role) ??
            ($only || Contact::ORDERS === $role ? null : $this->contactFor(Contact::ORDERS));
    }

    /** Who is written to in a role: whoever has it, or anybody else who has an address. */
    public function writtenTo(string $role): ?Contact
    {
        $contact = $this->contactFor($role);

        return null !== $contact && '' !== $contact->email()
            ? $contact
            : $this->contacts->findFirst(static fn (int $i, Contact $one): bool => '' !== $one->email());
    }

    /** In the supplier's currency. */
    public function freightTariff(): FreightTariff
    {
        return $this->freight->tariff();
    }

    public function orderMinimum(): OrderMinimum
    {
        return $this->least->minimum();
    }

    public function incoterm(): ?Incoterm
    {
        return Incoterm::tryFrom(strtoupper(explode(' ', $this->deliveryTerms)[0]));
    }

    /** @param list<int> $leadTimesMet days from sending to booking in */
    public function asSeller(array $leadTimesMet): Seller
    {
        return new Seller(
            $this->id,
            $this->name,
            $this->terms(),
            $this->incoterm(),
            $this->freightTariff(),
            $this->orderMinimum(),
            $leadTimesMet,
        );
    }

    public function freightKind(): string
    {
        return $this->freight->kind();
    }

    public function freightSteps(): string
    {
        return $this->freight->steps();
    }

    public function palletKg(): ?BigDecimal
    {
        return $this->freight->palletKg();
    }

    public function minimumKg(): ?BigDecimal
    {
        return $this->least->kilograms();
    }

    public function minimumPacks(): ?int
    {
        return $this->least->packs();
    }

    public function paidThrough(): ?self
    {
        return $this->paidThrough;
    }

    public function buyer(): ?Person
    {
        return $this->buyer;
    }

    /** @throws InvalidValue if their system cannot take it so */
    public function takesCsv(string $columns, string $delimiter, string $filename): void
    {
        CsvLayout::read($columns, $delimiter, $filename);
        [$this->csvColumns, $this->csvDelimiter, $this->csvFilename] = [trim($columns), $delimiter, trim($filename)];
    }

    public function csvLayout(): CsvLayout
    {
        return CsvLayout::read($this->csvColumns, $this->csvDelimiter, $this->csvFilename);
    }

    /** @return array{string, string, string} as typed: columns, delimiter and file name */
    public function csvAsTyped(): array
    {
        return [$this->csvColumns, $this->csvDelimiter, $this->csvFilename];
    }

    /** How the paper of their orders is. */
    public function readsOrders(PaperLanguage $language, bool $prices): void
    {
        $this->paperLanguage = $language;
        $this->paperPrices = $prices;
    }

    public function paperLanguage(): PaperLanguage
    {
        return $this->paperLanguage;
    }

    public function seesPrices(): bool
    {
        return $this->paperPrices;
    }

    public function inspect(bool $inspected): void
    {
        $this->inspected = $inspected;
    }

    public function isInspected(): bool
    {
        return $this->inspected;
    }

    public function wantsXml(): bool
    {
        return $this->wantsXml;
    }

    public function wantsCsv(): bool
    {
        return $this->wantsCsv;
    }

    public function notes(): string
    {
        return $this->notes;
    }

    public function version(): int
    {
        return $this->version;
    }

    /**
     * @return array{contact: string, email: string, address: string, terms: string} what an order needs of a supplier,
     *      empty where missing
     */
    public function facts(): array
    {
        return [
            'contact' => $this->contact()?->name() ?? '',
            'email' => $this->contact()?->email() ?? '',
            'address' => $this->address()?->oneLine() ?? '',
            'terms' => $this->terms()?->label() ?? '',
        ];
    }

    public function moves(): Moves
    {
        return Moves::allOf($this);
    }
}
