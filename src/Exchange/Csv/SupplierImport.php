<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;

/** Suppliers, new or changed; an empty cell leaves a known supplier's value as it is. */
final readonly class SupplierImport implements ImportKind
{
    /** Roles of addresses by what their columns begin with. */
    private const ADDRESSES = ['' => Address::ORDER, 'pay_' => Address::PAY, 'ship_' => Address::SHIP_FROM];

    public function __construct(
        private EntityManagerInterface $entities,
        private Codes $codes,
        private OwnColumns $own,
    ) {
    }

    public function name(): string
    {
        return 'suppliers';
    }

    public function title(): string
    {
        return 'Suppliers';
    }

    public function columns(): array
    {
        return [
            'code' => 'short code *',
            'name' => 'name *',
            'currency' => 'ISO 4217, such as EUR *',
            'contact' => 'who takes orders',
            'email' => 'where orders go',
            'phone' => '',
            'street' => '',
            'postcode' => '',
            'city' => '',
            'country' => 'ISO 3166, such as IE',
            'net_days' => 'days until payment is due',
            'discount_percent' => 'for paying early',
            'discount_days' => 'within so many days',
            'delivery_terms' => 'Incoterm and place',
            'order_weekdays' => '1 (Monday) to 7, with commas',
            'cut_off' => 'hour, as 14:00',
            'minimum_value' => 'in their currency',
            'free_freight_from' => 'in their currency',
            'freight' => 'of an order below that, in their currency',
            'full_load_kg' => 'kilograms that fill a load',
            'tax_percent' => '',
            'caution' => 'shown when ordering',
            'freight_kind' => 'none, flat, weight or pallet',
            'freight_steps' => 'by weight: 0=9 30=18',
            'pallet_kg' => 'kilograms on a pallet',
            'minimum_kg' => 'least weight of an order',
            'minimum_packs' => 'fewest packs of an order',
            'end_of_month' => 'yes when days to pay begin at its end',
            'deposit_percent' => 'paid when ordering',
            'instalments' => 'percent@days: 50@30 50@60',
            'quotes_contact' => 'who is asked for quotes',
            'quotes_email' => '',
            'accounts_contact' => 'who invoices are talked over with',
            'accounts_email' => '',
            'pay_street' => 'where it is paid, if elsewhere',
            'pay_postcode' => '',
            'pay_city' => '',
            'pay_country' => '',
            'ship_street' => 'where goods leave from',
            'ship_postcode' => '',
            'ship_city' => '',
            'ship_country' => '',
            'paid_through' => 'code of another supplier',
            'buyer' => 'email of whoever buys there',
            'wants_csv' => 'yes when orders go with a CSV file',
            'standing_note' => 'on each order',
            'notes' => 'for ourselves',
            'price_group' => 'suppliers that prices are agreed with together',
            'tax_rate' => 'one of our rates by name',
            'other_delivery_terms' => 'further ones, with a semicolon between',
        ] + $this->own->columns(OwnFieldThing::Supplier);
    }

    public function sample(): array
    {
        return [
            [
                'VETRASOL',
                'Vetrasol Glassworks',
                'EUR',
                'Ilse Tamm',
                'orders@vetrasol.example',
                '',
                'Kilnfield 4',
                '53501',
                'Orlany',
                'CZ',
                '30',
                '2',
                '10',
                'DAP Larkmoor',
                '1,2,3,4,5',
                '14:00',
                '500',
                '900',
                '63',
                '',
                '21',
                '',
                'weight',
                '0=14 30=26 100=58',
                '',
                '',
                '',
                'no',
                '',
                '',
                'Ilse Tamm',
                'quotes@vetrasol.example',
                '',
                '',
                '',
                '',
                '',
                '',
                'Furnace Road 2',
                '53503',
                'Orlany',
                'CZ',
                '',
                'mara@larkmoor.example',
                'no',
                '',
                '',
                '',
                '',
                'EXW Orlany; FCA Orlany',
                ...array_fill(0, count($this->own->columns(OwnFieldThing::Supplier)), ''),
            ],
        ];
    }

    public function reader(): callable
    {
        $known = $this->codes->suppliers();
        $buyers = $this->codes->people();
        $own = $this->own->byColumn(OwnFieldThing::Supplier);
        $taxes = $this->codes->taxes();
        $seen = [];

        return static function (Row $row) use ($known, $buyers, $own, $taxes, &$seen): ?array {
            $code = strtoupper($row->required('code', 20));
            if ('' !== $code && 1 !== preg_match('/^[A-Z0-9-]+$/', $code)) {
                $row->refuse('code', 'not letters, digits and hyphens only');
            }
            if (isset($seen[$code])) {
                $row->refuse('code', sprintf('stands in line %d already', $seen[$code]));
            }
            $seen[$code] = $row->line;
            $new = !isset($known[$code]);
            $name = $new ? $row->required('name', 120) : $row->text('name', 120);
            $currency =
                $new || $row->has('currency')
                    ? $row->attempt('currency', static fn (): Currency => Currency::of($row->required('currency')))
                    : null;
            $email = $row->text('email', 180);
            if ('' !== $email && false === filter_var($email, \FILTER_VALIDATE_EMAIL)) {
                $row->refuse('email', 'not an email address');
            }
            $terms = $row->has('net_days')
                ? $row->attempt(
                    'discount_days',
                    static fn (): PaymentTerms => PaymentTerms::net(
                        $row->integer('net_days', 0, 365) ?? 0,
                        $row->decimal('discount_percent', 2) ?? 0,
                        $row->integer('discount_days', 0, 365) ?? 0,
                    )
                        ->fromEndOfMonth($row->yes('end_of_month', false))
                        ->withDeposit($row->decimal('deposit_percent', 2) ?? 0)
                        ->inInstalments($row->text('instalments', 120)),
                )
                : null;
            $days = $row->text('order_weekdays', 20);
            $cutOff = $row->text('cut_off', 5, '16:00');
            $row->attempt('cut_off', static fn (): OrderDays => OrderDays::of([], $cutOff));
            $row->attempt(
                'order_weekdays',
                static fn (): bool => '' === $days || 1 === preg_match('/^[1-7](,[1-7])*$/', $days) ?:
                throw InvalidValue::because('not weekdays from 1 to 7 with commas between'),
            );
            $addresses = [];
            foreach (self::ADDRESSES as $prefix => $role) {
                $address = [
                    $row->text($prefix.'street', 120),
                    $row->text($prefix.'postcode', 20),
                    $row->text($prefix.'city', 80),
                    $row->text($prefix.'country'),
                ];
                if ('' !== implode('', $address)) {
                    if (1 !== preg_match('/^[A-Za-z]{2}$/', $address[3])) {
                        $row->refuse($prefix.'country', 'not a country code of two letters');
                    }
                    $addresses[$role] = $address;
                }
            }
            $people = [];
            foreach ([Contact::QUOTES, Contact::ACCOUNTS] as $role) {
                $someone = [$row->text($role.'_contact', 80), $row->text($role.'_email', 180)];
                if ('' !== implode('', $someone)) {
                    if ('' !== $someone[1] && false === filter_var($someone[1], \FILTER_VALIDATE_EMAIL)) {
                        $row->refuse($role.'_email', 'not an email address');
                    }
                    $people[$role] = $someone;
                }
            }
            $freight = null;
            if ($row->has('freight_kind')) {
                $freight = [
                    $row->text('freight_kind'),
                    $row->text('freight_steps', 200),
                    $row->decimal('pallet_kg', 1),
                ];
                // Tried on nobody, so that the mistake is named with its row.
                $row->attempt(
                    'freight_kind',
                    static fn (): bool => self::tried(
                        static fn (Supplier $nobody) => $nobody->reckonsFreight(...$freight),
                    ),
                );
            }
            $paidThrough = $row->has('paid_through') ? $row->code('paid_through', $known, 'supplier') : null;
            $buyer = null;
            if ($row->has('buyer') && null === ($buyer = $buyers[strtolower($row->text('buyer', 180))] ?? null)) {
                $row->refuse('buyer', 'nobody here has this email address');
            }
            $amounts = [
                $row->decimal('minimum_value', 2),
                $row->decimal('free_freight_from', 2),
                $row->decimal('tax_percent', 2),
                $row->decimal('freight', 2),
                $row->decimal('full_load_kg', 1),
            ];
            $texts = [];
            foreach (
                [
                    'contact' => 80,
                    'phone' => 40,
                    'delivery_terms' => 80,
                    'caution' => 300,
                    'standing_note' => 500,
                    'notes' => 2000,
                    'price_group' => 40,
                ] as $column => $longest
            ) {
                $texts[$column] = $row->text($column, $longest);
            }

            $others = $row->has('other_delivery_terms')
                ? preg_split('/\s*;\s*/', trim($row->text('other_delivery_terms', 600)), -1, \PREG_SPLIT_NO_EMPTY) ?: []
                : null;
            $row->attempt('other_delivery_terms', static fn (): bool => self::tried(
                static fn (Supplier $nobody) => $nobody->mayAlsoDeliverAs($others ?? []),
            ));
            $taxName = Codes::taxName($row, $taxes);
            $ours = OwnColumns::read($row, $own);

            return $row->isGood()
                ? [
                    'own' => $ours,
                    'code' => $code,
                    'name' => $name,
                    'currency' => $currency?->code,
                    'email' => $email,
                    'terms' => $terms,
                    'days' => $days,
                    'cutOff' => $row->has('cut_off') || $new ? $cutOff : '',
                    'amounts' => $amounts,
                    'texts' => $texts,
                    'addresses' => $addresses,
                    'people' => $people,
                    'freight' => $freight,
                    'minimumKg' => $row->decimal('minimum_kg', 1),
                    'minimumPacks' => $row->integer('minimum_packs', 0, 999999),
                    'paidThrough' => $paidThrough,
                    'buyer' => $buyer,
                    'otherTerms' => $others,
                    'taxName' => $taxName,
                    'wantsCsv' => $row->has('wants_csv') ? $row->yes('wants_csv', false) : null,
                ]
                : null;
        };
    }

    public function all(): iterable
    {
        $where = ['archivedOn' => null];
        foreach ($this->entities->getRepository(Supplier::class)->findBy($where, ['code' => 'ASC']) as $supplier) {
            $terms = $supplier->terms();
            $money = static fn (?Money $money): string => Cell::number($money?->amount);
            $place = static fn (?Address $address): array => [
                $address?->street() ?? '',
                $address?->postcode() ?? '',
                $address?->city() ?? '',
                $address?->country() ?? '',
            ];
            [$orders, $quotes, $accounts] = [
                $supplier->contact(),
                $supplier->contactFor(Contact::QUOTES, true),
                $supplier->contactFor(Contact::ACCOUNTS, true),
            ];
            yield [
                $supplier->code, $supplier->name(), $supplier->currency()->code,
                $orders?->name() ?? '', $orders?->email() ?? '', $orders?->phone() ?? '',
                ...$place($supplier->address()),
                null === $terms ? '' : (string) $terms->netDays,
                null === $terms ? '' : Cell::number($terms->discountPercent),
                null === $terms ? '' : (string) $terms->discountDays,
                $supplier->deliveryTerms(), $supplier->orderWeekdays(), $supplier->orderDays()->cutOff,
                $money($supplier->minimum()), $money($supplier->freeFreightFrom()), $money($supplier->freight()),
                Cell::number($supplier->fullLoadKg()), Cell::number($supplier->tax()->percent), $supplier->caution(),
                $supplier->freightKind(), $supplier->freightSteps(), Cell::number($supplier->palletKg()),
                Cell::number($supplier->minimumKg()), (string) $supplier->minimumPacks(),
                Cell::yes($terms->endOfMonth ?? false),
                null === $terms ? '' : Cell::number($terms->depositPercent),
                $terms?->instalmentsLabel() ?? '',
                $quotes?->name() ?? '', $quotes?->email() ?? '', $accounts?->name() ?? '', $accounts?->email() ?? '',
                ...$place($supplier->addressFor(Address::PAY, true)),
                ...$place($supplier->addressFor(Address::SHIP_FROM, true)),
                $supplier->paidThrough()->code ?? '', $supplier->buyer()?->email() ?? '',
                Cell::yes($supplier->wantsCsv()), $supplier->standingNote(), $supplier->notes(),
                $supplier->priceGroup(), $supplier->taxName(), implode('; ', $supplier->otherDeliveryTerms()),
                ...$this->own->cells(OwnFieldThing::Supplier, $supplier->id),
            ];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        $ours = [];
        /**
         * @var array{code: string, name: string, currency: string|null, email: string, terms: PaymentTerms|null,
         *      days: string, cutOff: string, amounts: array{BigDecimal|null, BigDecimal|null, BigDecimal|null,
         *      BigDecimal|null, BigDecimal|null}, texts: array<string, string>, addresses: array<string, array{string,
         *      string, string, string}>, people: array<string, array{string, string}>, freight: array{string, string,
         *      BigDecimal|null}|null, minimumKg: BigDecimal|null, minimumPacks: int|null, paidThrough: int|null,
         *      buyer: int|null, wantsCsv: bool|null, otherTerms: list<string>|null, taxName: string|null,
         *      own: array<int, string>} $row
         */
        foreach ($rows as $row) {
            $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $row['code']]);
            if (null === $supplier) {
                $supplier = new Supplier($row['code'], $row['name'], $row['currency'] ?? '');
                $this->entities->persist($supplier);
            }
            $texts = $row['texts'];
            $supplier->rename('' !== $row['name'] ? $row['name'] : $supplier->name());
            if (null !== $row['currency']) {
                $supplier->tradeIn($row['currency']);
            }
            if (null !== $row['terms']) {
                $supplier->agreeTerms($row['terms']);
            }
            if ('' !== $row['days'] || '' !== $row['cutOff']) {
                $supplier->takesOrders(
                    '' !== $row['days'] ? $row['days'] : $supplier->orderWeekdays(),
                    '' !== $row['cutOff'] ? $row['cutOff'] : $supplier->orderDays()->cutOff,
                );
            }
            [$minimum, $free, $tax, $freight, $load] = $row['amounts'];
            $supplier->ships($freight ?? $supplier->freight()?->amount, $load ?? $supplier->fullLoadKg());
            $supplier->asksFor(
                $minimum ?? $supplier->minimum()?->amount,
                $free ?? $supplier->freeFreightFrom()?->amount,
            );
            $supplier->deliversAs(
                '' !== $texts['delivery_terms'] ? $texts['delivery_terms'] : $supplier->deliveryTerms(),
                null === $tax ? $supplier->tax() : Tax::percent($tax, $supplier->tax()->category),
            );
            $supplier->remember(
                '' !== $texts['caution'] ? $texts['caution'] : $supplier->caution(),
                '' !== $texts['standing_note'] ? $texts['standing_note'] : $supplier->standingNote(),
            );
            foreach ($row['addresses'] as $role => $address) {
                $supplier->moveTo($address[0], $address[1], $address[2], $address[3], $role);
            }
            foreach ($row['people'] as $role => [$name, $email]) {
                $supplier->orderThrough($name, $email, '', $role);
            }
            if (null !== $row['freight']) {
                $supplier->reckonsFreight(...$row['freight']);
            }
            $supplier->takesAtLeast(
                $row['minimumKg'] ?? $supplier->minimumKg(),
                $row['minimumPacks'] ?? $supplier->minimumPacks(),
            );
            if (null !== $row['paidThrough']) {
                $supplier->isPaidThrough($this->entities->find(Supplier::class, $row['paidThrough']));
            }
            if (null !== $row['buyer']) {
                $supplier->isBoughtFromBy($this->entities->find(Person::class, $row['buyer']));
            }
            $supplier->belongTo('' !== $texts['price_group'] ? $texts['price_group'] : $supplier->priceGroup());
            $supplier->isTaxedBy($row['taxName'] ?? $supplier->taxName());
            $supplier->mayAlsoDeliverAs($row['otherTerms'] ?? $supplier->otherDeliveryTerms());
            $supplier->wantsOrders($row['wantsCsv'] ?? $supplier->wantsCsv(), $supplier->wantsXml());
            $supplier->jot('' !== $texts['notes'] ? $texts['notes'] : $supplier->notes());
            $contact = $supplier->contact();
            if ('' !== $texts['contact'] || '' !== $row['email']) {
                $supplier->orderThrough(
                    '' !== $texts['contact'] ? $texts['contact'] : $contact?->name() ?? '',
                    '' !== $row['email'] ? $row['email'] : $contact?->email() ?? '',
                    '' !== $texts['phone'] ? $texts['phone'] : $contact?->phone() ?? '',
                );
            }
            $ours[$row['code']] = $row['own'];
        }
        $this->entities->flush();
        $this->own->put(OwnFieldThing::Supplier, $ours, $this->codes->suppliers());
    }

    /**
     * @param callable(Supplier): void $change
     *
     * @throws InvalidValue
     */
    private static function tried(callable $change): bool
    {
        $change(new Supplier('NOBODY', 'Nobody', 'EUR'));

        return true;
    }
}
