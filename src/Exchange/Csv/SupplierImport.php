<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Suppliers, new or changed; an empty cell leaves a known supplier's value as it is. */
final readonly class SupplierImport implements ImportKind
{
    public function __construct(private EntityManagerInterface $entities, private Codes $codes)
    {
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
            'code' => 'short code *', 'name' => 'name *', 'currency' => 'ISO 4217, such as EUR *', 'contact' => 'who takes orders', 'email' => 'where orders go', 'phone' => '',
            'street' => '', 'postcode' => '', 'city' => '', 'country' => 'ISO 3166, such as IE', 'net_days' => 'days until payment is due', 'discount_percent' => 'for paying early', 'discount_days' => 'within so many days',
            'delivery_terms' => 'Incoterm and place', 'order_weekdays' => '1 (Monday) to 7, with commas', 'cut_off' => 'hour, as 14:00', 'minimum_value' => 'in their currency', 'free_freight_from' => 'in their currency', 'freight' => 'of an order below that, in their currency', 'full_load_kg' => 'kilograms that fill a load', 'tax_percent' => '', 'caution' => 'shown when ordering',
        ];
    }

    public function sample(): array
    {
        return [['VETRASOL', 'Vetrasol Glassworks', 'EUR', 'Ilse Tamm', 'orders@vetrasol.example', '', 'Kilnfield 4', '53501', 'Orlany', 'CZ', '30', '2', '10', 'DAP Larkmoor', '1,2,3,4,5', '14:00', '500', '900', '63', '', '21', '']];
    }

    public function reader(): callable
    {
        $known = $this->codes->suppliers();
        $seen = [];

        return static function (Row $row) use ($known, &$seen): ?array {
            $code = strtoupper($row->required('code', 20));
            if (isset($seen[$code])) {
                $row->refuse('code', sprintf('stands in line %d already', $seen[$code]));
            }
            $seen[$code] = $row->line;
            $new = !isset($known[$code]);
            $name = $new ? $row->required('name', 120) : $row->text('name', 120);
            $currency = $new || $row->has('currency') ? $row->attempt('currency', static fn (): Currency => Currency::of($row->required('currency'))) : null;
            $email = $row->text('email', 180);
            if ('' !== $email && false === filter_var($email, \FILTER_VALIDATE_EMAIL)) {
                $row->refuse('email', 'not an email address');
            }
            $terms = $row->has('net_days') ? $row->attempt('discount_days', static fn (): PaymentTerms => PaymentTerms::net($row->integer('net_days', 0, 365) ?? 0, $row->decimal('discount_percent', 2) ?? 0, $row->integer('discount_days', 0, 365) ?? 0)) : null;
            $days = $row->text('order_weekdays', 20);
            $cutOff = $row->text('cut_off', 5, '16:00');
            $row->attempt('cut_off', static fn (): OrderDays => OrderDays::of([], $cutOff));
            $row->attempt('order_weekdays', static fn (): bool => '' === $days || 1 === preg_match('/^[1-7](,[1-7])*$/', $days) ?: throw InvalidValue::because('not weekdays from 1 to 7 with commas between'));
            if ($row->has('country') && 1 !== preg_match('/^[A-Za-z]{2}$/', $row->text('country'))) {
                $row->refuse('country', 'not a country code of two letters');
            }
            $amounts = [$row->decimal('minimum_value', 2), $row->decimal('free_freight_from', 2), $row->decimal('tax_percent', 2), $row->decimal('freight', 2), $row->decimal('full_load_kg', 1)];
            $texts = [];
            foreach (['contact' => 80, 'phone' => 40, 'street' => 120, 'postcode' => 20, 'city' => 80, 'country' => 2, 'delivery_terms' => 80, 'caution' => 300] as $column => $longest) {
                $texts[$column] = $row->text($column, $longest);
            }

            return $row->isGood() ? ['code' => $code, 'name' => $name, 'currency' => $currency?->code, 'email' => $email, 'terms' => $terms, 'days' => $days, 'cutOff' => $row->has('cut_off') || $new ? $cutOff : '', 'amounts' => $amounts, 'texts' => $texts] : null;
        };
    }

    public function apply(iterable $rows, Person $person): void
    {
        /** @var array{code: string, name: string, currency: string|null, email: string, terms: PaymentTerms|null, days: string, cutOff: string, amounts: array{BigDecimal|null, BigDecimal|null, BigDecimal|null, BigDecimal|null, BigDecimal|null}, texts: array<string, string>} $row */
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
                $supplier->takesOrders('' !== $row['days'] ? $row['days'] : $supplier->orderWeekdays(), '' !== $row['cutOff'] ? $row['cutOff'] : $supplier->orderDays()->cutOff);
            }
            [$minimum, $free, $tax, $freight, $load] = $row['amounts'];
            $supplier->ships($freight ?? $supplier->freight()?->amount, $load ?? $supplier->fullLoadKg());
            $supplier->asksFor($minimum ?? $supplier->minimum()?->amount, $free ?? $supplier->freeFreightFrom()?->amount);
            $supplier->deliversAs('' !== $texts['delivery_terms'] ? $texts['delivery_terms'] : $supplier->deliveryTerms(), $tax ?? $supplier->taxPercent());
            $supplier->remember('' !== $texts['caution'] ? $texts['caution'] : $supplier->caution(), $supplier->standingNote());
            if ('' !== $texts['street']) {
                $supplier->moveTo($texts['street'], $texts['postcode'], $texts['city'], strtoupper($texts['country']));
            }
            $contact = $supplier->contact();
            if ('' !== $texts['contact'] || '' !== $row['email']) {
                $supplier->orderThrough('' !== $texts['contact'] ? $texts['contact'] : $contact?->name() ?? '', '' !== $row['email'] ? $row['email'] : $contact?->email() ?? '', '' !== $texts['phone'] ? $texts['phone'] : $contact?->phone() ?? '');
            }
        }
        $this->entities->flush();
    }
}
