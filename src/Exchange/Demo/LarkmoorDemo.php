<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Business\Business;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\Stocking;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Planning\Closure;
use TallBarrel\Store\Planning\ItemPolicy;
use TallBarrel\Store\Planning\OrderList;
use TallBarrel\Store\Planning\PlannedNeed;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\AverageCosts;
use TallBarrel\Store\Stock\CostHistory;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\ExpectCharges;
use TallBarrel\Work\Settling\SpreadCharge;
use TallBarrel\Work\Sourcing\BringPriceList;

/**
 * Larkmoor Bee Supply: a made-up business with three years behind it, built afresh relative to today.
 *
 * @phpstan-type Row array{code: string, name: string, category: string, unit: string, supplier: string,
 *      their_code: string, pack: string, content: string, minimum: string, multiple: string, price: string,
 *      lead: string,
 *      weekly: string, season: string, sale_price: string, weight: string, lots: string, sold: string, shops: string}
 * @phpstan-type PastLine array{item: string, site: string, packs: int}
 */
final class LarkmoorDemo
{
    public const PASSWORD = 'larkmoor-honey';
    private const RATES = ['GBP' => 0.862, 'PLN' => 4.268, 'USD' => 1.084];
    private const LEDGER_DAYS = 130;
    private const SHOP_SHARE = 0.38;
    private const SHELF_DAYS = 270;
    private const STAPLES = ['JAR-340R', 'JAR-454R', 'LID-63G', 'FND-WW', 'FEED-FON-25', 'FEED-SYR-14', 'HIV-NBBC'];

    private \DateTimeImmutable $today;
    /** @var array<string, Supplier> */
    private array $suppliers = [];
    /** @var array<string, Item> */
    private array $items = [];
    /** @var array<string, Offer> */
    private array $offers = [];
    /** @var array<string, Site> */
    private array $sites = [];
    /** @var array<string, Person> */
    private array $people = [];
    /** @var array<string, Row> */
    private array $catalogue = [];
    /** @var array<string, array<int, list<PastLine>>> order lines by supplier and day of ordering */
    private array $past = [];

    private const CUSTOMERS = ['Sallow Bridge school', 'Apiary Whin Top', 'Ferry Lane bakery'];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Connection $connection,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly Ledger $ledger,
        private readonly AverageCosts $averages,
        private readonly CostHistory $costs,
        private readonly ClockInterface $clock,
        private readonly BringPriceList $priceLists,
        private readonly Invoices $invoices,
        private readonly Categories $categories,
        private readonly SpreadCharge $spread,
        private readonly ExpectCharges $expect,
    ) {
    }

    public function isNeeded(): bool
    {
        // Where anything was ever done, the demo was taken away or never wanted.
        return false === $this->connection->fetchOne(
            'SELECT 1 FROM business UNION ALL SELECT 1 FROM audit_entry LIMIT 1',
        );
    }

    public function load(): void
    {
        $this->today = $this->clock->now()->setTime(0, 0);
        $this->connection->transactional(function (): void {
            $this->business();
            $this->suppliersAndCatalogue();
            $this->entities->flush();
            $this->categories();
            $trades = $this->trade();
            $this->salesHistory($trades);
            $this->pastOrdersAndLedger($trades);
            $this->waitingOrders();
            // Larkmoor's owner likes a lower price.
            $this->connection->executeStatement(
                "UPDATE policy_setting SET beyond = 1 WHERE kind IN ('order-up-to', 'periodic')",
            );
            $this->promises();
            (new LarkmoorSourcing(
                $this->entities,
                $this->suppliers,
                $this->items,
                $this->offers,
                $this->sites,
                self::RATES,
                $this->people['buyer'],
                $this->clock->now(),
                $this->priceLists,
            ))->load();
            $this->plans();
            $this->entities->flush();
            (new LarkmoorDock(
                $this->entities,
                $this->ledger,
                $this->items,
                $this->sites,
                $this->people['stockroom'],
                $this->clock->now(),
            ))->load();
            (new LarkmoorSettling(
                $this->entities,
                $this->invoices,
                $this->people['bookkeeper'],
                $this->people['owner'],
                $this->clock->now(),
            ))->load();
            $this->lateFreight();
            $this->expectedFreight();
            $this->leftWithUs();
        });
        $this->entities->clear();
    }

    /** What came in the last days bears freight that nobody has billed yet. */
    private function expectedFreight(): void
    {
        /** @var list<Receipt> $receipts */
        $receipts = $this->entities
            ->createQuery('SELECT r FROM '.Receipt::class.' r WHERE r.day >= :from ORDER BY r.day DESC, r.id')
            ->setParameter('from', $this->today->modify('-30 days'))
            ->getResult();
        $expected = [];
        foreach ($receipts as $receipt) {
            foreach ($receipt->lines() as $line) {
                if (null !== $line->line->item) {
                    $this->entities->refresh($line->line->item);
                }
            }
            array_push($expected, ...$this->expect->with($receipt, $this->people['bookkeeper']));
            if (count($expected) >= 3) {
                break;
            }
        }
    }

    /** Two items of the latest delivery are theirs until they are used. */
    private function leftWithUs(): void
    {
        $this->entities->flush();
        /** @var list<array{id: int, offer_id: int}> $lines */
        $lines = $this->connection->fetchAllAssociative(
            'SELECT l.id, l.offer_id FROM order_line l JOIN receipt_line x ON x.line_id = l.id
             JOIN receipt r ON r.id = x.receipt_id JOIN item i ON i.id = l.item_id
             WHERE l.invoiced = 0 AND l.received > 1 AND l.offer_id IS NOT NULL ORDER BY r.day DESC, l.id DESC LIMIT 2',
        );
        foreach ($lines as $n => $line) {
            $this->connection->executeStatement(
                'UPDATE offer SET consigned = 1, consigned_days = ? WHERE id = ?',
                [0 === $n ? 90 : 0, $line['offer_id']],
            );
            $this->connection->executeStatement(
                'UPDATE order_line SET consigned = 1, still_theirs = received WHERE id = ?',
                [$line['id']],
            );
        }
    }

    /** The carrier's bill for the dearest delivery of three weeks ago came only now. */
    private function lateFreight(): void
    {
        /** @var list<Receipt> $receipts */
        $receipts = $this->entities
            ->createQuery(
                'SELECT r FROM '.Receipt::class.' r JOIN r.lines l WHERE r.day BETWEEN :from AND :until
                 GROUP BY r ORDER BY SUM(l.packs * l.unitCost) DESC, r.id',
            )
            ->setParameters([
                'from' => $this->today->modify('-25 days'), 'until' => $this->today->modify('-18 days'),
            ])
            ->setMaxResults(1)
            ->getResult();
        if ([] !== $receipts) {
            $this->spread->book(
                new AskedCharge(ChargeKind::Freight, null, 'KF 2210', Money::of('68.40', 'EUR'), SpreadBasis::Value,
                    $receipts, []),
                $this->people['bookkeeper'],
                'demo-freight',
            );
        }
    }

    private function business(): void
    {
        $business = new Business(
            'Larkmoor Bee Supply',
            'Heather Road 12, A94 LK08 Larkmoor, Ireland',
            'IE9999999LB',
            'EUR',
            BigDecimal::of('3.00'),
            BigDecimal::of('25'),
            BigDecimal::of('66000'),
        );
        $business->introduce($business->name(), $business->address(), $business->taxNumber(), 'IE');
        $business->isMadeUp();
        $this->entities->persist($business);
        foreach (
            [
                ['DEPOT', 'Depot', 'Heather Road 12, A94 LK08 Larkmoor, IE', 'Mon–Fri 7 to 16', 9],
                ['FERRY', 'Ferry Lane', 'Ferry Lane 3, A94 LK21 Larkmoor, IE', 'rear gate, Mon–Fri 8 to 16', 5],
                ['MILL', 'Millbank', 'Millbank 40, A96 MB02 Sallow Bridge, IE', 'Tue–Sat 9 to 17', 4],
            ] as [$code, $name, $address, $hours, $rows]
        ) {
            $site = new Site($code, $name, $address, $hours);
            for ($row = 0; $row < $rows; ++$row) {
                for ($rack = 1; $rack <= 4; ++$rack) {
                    $site->addBin(sprintf('%s-%02d-%d', chr(65 + $row), $rack, 1 + (($row + $rack) % 3)));
                }
            }
            $this->entities->persist($site);
            $this->sites[$code] = $site;
        }
        foreach (
            [
                ['rowan@larkmoor.example', 'Rowan Okell', Role::Owner, null],
                ['mara@larkmoor.example', 'Mara Ashdown', Role::Buyer, '2500'],
                ['tam@larkmoor.example', 'Tam Brightwell', Role::Stockroom, '0'],
                ['iris@larkmoor.example', 'Iris Fennimore', Role::Bookkeeper, '0'],
            ] as [$email, $name, $role, $limit]
        ) {
            $person = new Person($email, $name, $role, null === $limit ? null : BigDecimal::of($limit));
            $person->usePassword($this->hasher->hashPassword($person, self::PASSWORD));
            $this->entities->persist($person);
            $this->people[$role->value] = $person;
        }
        $rates = new BulkInsert($this->connection, 'exchange_rate', ['currency', 'day', 'foreign_for_one', 'source']);
        foreach (self::RATES as $currency => $rate) {
            $chance = new Chance('rate '.$currency);
            for ($day = 140; $day >= 0; --$day) {
                $rate = max(
                    0.97 * self::RATES[$currency],
                    min(1.03 * self::RATES[$currency], $rate * (1 + 0.002 * $chance->normal())),
                );
                $rates->add($currency, $this->day($day), number_format($rate, 4, '.', ''), 'made up');
            }
        }
        $rates->flush();
    }

    private function suppliersAndCatalogue(): void
    {
        foreach (LarkmoorSuppliers::all() as $made) {
            $supplier = new Supplier($made->code, $made->name, $made->currency);
            $supplier->agreeTerms(PaymentTerms::net($made->terms[0], (string) $made->terms[1], $made->terms[2]));
            $supplier->takesOrders($made->weekdays, $made->cutOff);
            $supplier->asksFor(
                null === $made->minimum ? null : BigDecimal::of($made->minimum),
                null === $made->freeFreight ? null : BigDecimal::of($made->freeFreight),
            );
            $supplier->ships(
                null === $made->freeFreight ? null : BigDecimal::of((string) round(0.07 * $made->freeFreight)),
                'TINDAVIK' === $made->code ? BigDecimal::of(900) : null,
            );
            $supplier->deliversAs($made->delivery, $made->tax());
            $supplier->adjusts($made->adjustments());
            $supplier->remember($made->caution, $made->note);
            if (null !== $made->address) {
                $supplier->moveTo(...$made->address);
            }
            if (null !== $made->contact) {
                $supplier->orderThrough(...$made->contact);
            }
            $this->entities->persist($supplier);
            $this->suppliers[$made->code] = $supplier;
        }
        $number = 0;
        foreach ($this->rows() as $row) {
            $item = new Item($row['code'], $row['name'], $row['category'], Unit::fromText($row['unit']));
            $body = sprintf('952%09d', ++$number * 37);
            $item->mark(Gtin::of($body.Gtin::checkDigit($body)));
            $item->sell('1' === $row['sold'], '0' === $row['sale_price'] ? null : BigDecimal::of($row['sale_price']));
            $item->measure(BigDecimal::of($row['weight']), '1' === $row['lots']);
            $item->keep(in_array($row['code'], self::STAPLES, true), '1' === $row['lots'] ? self::SHELF_DAYS : null);
            $cost = $this->homeCost($row);
            $item->costs($cost, $cost);
            $this->entities->persist($item);
            $offer = $this->offer(
                $this->suppliers[$row['supplier']],
                $item,
                $row['their_code'],
                $row['pack'],
                (int) $row['content'],
                (int) $row['minimum'],
                (int) $row['multiple'],
                (int) $row['lead'],
                1,
                $this->breaks((float) $row['price'], 'JAR' === substr($row['code'], 0, 3)),
            );
            $this->items[$row['code']] = $item;
            $this->offers[$row['code']] = $offer;
            $this->catalogue[$row['code']] = $row;
            if (1 === preg_match('/^JAR-\d+[HR]$/', $row['code'])) {
                $this->offer($this->suppliers['TINDAVIK'], $item, 'TK-'.$row['code'], 'carton', 24, 5, 1, 22, 2, [
                    [1, number_format((float) $row['price'] * 2 * 4.0, 2, '.', '')],
                    [20, number_format((float) $row['price'] * 2 * 3.86, 2, '.', '')],
                ]);
                if ('H' === substr($row['code'], -1)) {
                    $this->offer($this->suppliers['LUMEN'], $item, 'LF-'.$row['code'], 'case', 24, 2, 1, 11, 2, [
                        [1, number_format((float) $row['price'] * 2.05, 2, '.', '')],
                        [12, number_format((float) $row['price'] * 1.94, 2, '.', '')],
                    ]);
                }
            }
            foreach ($this->sitesOf($row) as $code) {
                $bins = $this->sites[$code]->bins();
                $this->entities->persist(
                    new Stocking($item, $this->sites[$code], $bins[crc32($row['code']) % count($bins)]),
                );
            }
        }
    }

    /** @return iterable<Row> */
    private function rows(): iterable
    {
        $file = new \SplFileObject(__DIR__.'/catalogue.csv');
        $file->setFlags(
            \SplFileObject::READ_CSV |
                \SplFileObject::READ_AHEAD |
                \SplFileObject::SKIP_EMPTY |
                \SplFileObject::DROP_NEW_LINE,
        );
        $file->setCsvControl(';', '"', '');
        $header = null;
        foreach ($file as $fields) {
            /** @var list<string> $fields */
            if (null === $header) {
                $header = $fields;
            } else {
                /** @var Row $row */
                $row = array_combine($header, $fields);
                yield $row;
            }
        }
    }

    /** @param list<array{int, string}> $prices */
    private function offer(
        Supplier $supplier,
        Item $item,
        string $code,
        string $pack,
        int $content,
        int $minimum,
        int $multiple,
        int $lead,
        int $rank,
        array $prices,
    ): Offer {
        $offer = new Offer($supplier, $item, $code, $pack, BigDecimal::of($content));
        $offer->sellBy(BuyingRule::of(Pack::of($pack, $content), $minimum, $multiple));
        $offer->promise($lead, $rank, $this->today->modify('+150 days'));
        $offer->price(PriceBreaks::of($prices));
        $this->entities->persist($offer);

        return $offer;
    }

    /** @return list<array{int, string}> */
    private function breaks(float $price, bool $volume): array
    {
        $at = static fn (float $factor): string => number_format($price * $factor, 2, '.', '');

        return $volume ? [[1, $at(1)], [40, $at(0.965)], [80, $at(0.94)]] : [[1, $at(1)]];
    }

    /** @param Row $row */
    private function homeCost(array $row): BigDecimal
    {
        $rate = self::RATES[$this->suppliers[$row['supplier']]->currency()->code] ?? 1.0;
        $cost =
            ((float) $row['price'] / $rate / (float) $row['content']) *
            (0.96 + 0.05 * (new Chance('cost '.$row['code']))->share());

        return BigDecimal::of(number_format($cost, 6, '.', ''));
    }

    /**
     * @param Row $row
     *
     * @return list<string>
     */
    private function sitesOf(array $row): array
    {
        return [
            'DEPOT',
            ...array_map(
                static fn (string $shop): string => ['FL' => 'FERRY', 'ML' => 'MILL'][$shop] ?? 'DEPOT',
                array_filter(explode(' ', $row['shops']), static fn (string $shop): bool => '' !== $shop),
            ),
        ];
    }

    /** @return array<string, array<string, LarkmoorTrade>> by item and site */
    private function trade(): array
    {
        $arrivals = [];
        foreach (LarkmoorSuppliers::all() as $made) {
            $arrivals[$made->code] = $this->orderDays($made);
        }
        $trades = [];
        foreach ($this->catalogue as $code => $row) {
            foreach ($this->sitesOf($row) as $site) {
                $made = $this->madeSupplier($row['supplier']);
                $share = 'DEPOT' === $site ? 1.0 : self::SHOP_SHARE;
                $trade = new LarkmoorTrade(
                    $code.' '.$site,
                    (float) $row['weekly'] * $share,
                    $row['season'],
                    'FERRY' === $site && 'harvest' === $row['season'],
                    (int) $row['content'],
                    (int) $row['multiple'],
                    $made->leadDays,
                    $made->rhythm,
                    $this->today,
                    $arrivals[$row['supplier']],
                );
                $trade->run();
                $trades[$code][$site] = $trade;
                foreach ($trade->ordered as $day => $packs) {
                    $this->past[$row['supplier']][$day][] = ['item' => $code, 'site' => $site, 'packs' => $packs];
                }
            }
        }

        return $trades;
    }

    private function madeSupplier(string $code): LarkmoorSuppliers
    {
        foreach (LarkmoorSuppliers::all() as $made) {
            if ($made->code === $code) {
                return $made;
            }
        }
        throw new \LogicException('No such supplier: '.$code);
    }

    /** @return array<int, int> days of ordering and of arrival, counted backwards from today */
    private function orderDays(LarkmoorSuppliers $made): array
    {
        $chance = new Chance('orders '.$made->code);
        $days = [];
        $first = $made->rhythm - 2 + ($made->leadDays > 15 ? 8 : 0);
        if (null !== $made->open) {
            $days[$made->open[0]] = 0;
            $first = $made->open[0] + $made->rhythm;
        }
        for ($day = max($first, $made->leadDays + 2); $day <= LarkmoorTrade::DAYS; $day += $made->rhythm) {
            $took = max(
                2,
                $made->leadDays + (int) round($made->leadSpread * $chance->normal() + $made->leadSpread / 3),
            );
            $days[$day] = max(1, $day - $took);
        }

        return $days;
    }

    /** @param array<string, array<string, LarkmoorTrade>> $trades */
    private function salesHistory(array $trades): void
    {
        $sales = new BulkInsert($this->connection, 'sales_day', [
            'item_id',
            'site_id',
            'day',
            'quantity',
            'out_of_stock',
        ]);
        foreach ($trades as $code => $bySite) {
            foreach ($bySite as $site => $trade) {
                foreach ($trade->sold + array_map(static fn (bool $out): int => 0, $trade->out) as $day => $quantity) {
                    $sales->add(
                        $this->items[$code]->id,
                        $this->sites[$site]->id,
                        $this->day($day),
                        $quantity,
                        isset($trade->out[$day]),
                    );
                }
            }
        }
        $sales->flush();
    }

    /**
     * @param array<string, array<string, LarkmoorTrade>> $trades
     */
    private function pastOrdersAndLedger(array $trades): void
    {
        /**
         * @var array<string, array<string, array<int, list<array{int, string, string}>>>> $received units, receipt
         *      number and cost by item, site, day
         */
        $received = [];
        $papers = [];
        foreach ($this->past as $supplier => $byDay) {
            $made = $this->madeSupplier($supplier);
            $arrivals = $this->orderDays($made);
            foreach ($byDay as $day => $lines) {
                if ($day <= self::LEDGER_DAYS || $arrivals[$day] < self::LEDGER_DAYS) {
                    $papers[] = ['supplier' => $made, 'day' => $day, 'arrival' => $arrivals[$day], 'lines' => $lines];
                }
            }
        }
        $stannery = $this->madeSupplier('STANNERY');
        $papers[] = [
            'supplier' => $stannery,
            'day' => 66,
            'arrival' => -99,
            'lines' => [
                ['item' => 'SP-BEL-S', 'site' => 'DEPOT', 'packs' => 6],
                ['item' => 'SP-MSH-F', 'site' => 'DEPOT', 'packs' => 8],
                ['item' => 'SP-BRG-6', 'site' => 'DEPOT', 'packs' => 4],
            ],
        ];
        usort($papers, static fn (array $a, array $b): int => $b['day'] <=> $a['day']);

        $orders = new BulkInsert($this->connection, 'purchase_order', [
            'id',
            'number',
            'supplier_id',
            'buyer_id',
            'version',
            'state',
            'currency',
            'home_currency',
            'foreign_for_one',
            'tax_percent',
            'tax_category',
            'adjustments',
            'their_reference',
            'reminder',
            'deliver_to',
            'carrier',
            'project',
            'delivery_terms',
            'note',
            'wanted_on',
            'promised_on',
            'approved_by_id',
            'approved_at',
            'sent_at',
            'acknowledged_at',
            'revision',
            'created_at',
            'token',
        ]);
        $orderLines = (new BulkInsert($this->connection, 'order_line', [
            'id',
            'order_id',
            'position',
            'item_id',
            'offer_id',
            'site_id',
            'description',
            'supplier_code',
            'pack_name',
            'pack_content',
            'packs',
            'price',
            'list_price',
            'discount_percent',
            'discount_each',
            'note_to_them',
            'note_to_us',
            'received',
            'closed_short',
        ]))->after($orders);
        $deliveries = new BulkInsert($this->connection, 'delivery', [
            'id',
            'version',
            'supplier_id',
            'site_id',
            'note_number',
            'arrived_at',
            'booked_at',
        ]);
        $deliveryLines = (new BulkInsert($this->connection, 'delivery_line', [
            'delivery_id',
            'line_id',
            'counted',
            'expected',
            'close_short',
            'lot',
            'expires_on',
        ]))->after($orderLines, $deliveries);
        $receipts = (new BulkInsert($this->connection, 'receipt', [
            'id',
            'number',
            'delivery_id',
            'by_id',
            'day',
            'at',
            'idempotency_key',
        ]))->after($deliveries);
        $receiptLines = (new BulkInsert($this->connection, 'receipt_line', [
            'receipt_id',
            'line_id',
            'packs',
            'unit_cost',
            'lot',
        ]))->after($orderLines, $receipts);
        $audit = new BulkInsert($this->connection, 'audit_entry', ['at', 'person_id', 'subject', 'words']);
        $orderId = $lineId = $receiptId = 0;
        foreach ($papers as $paper) {
            $made = $paper['supplier'];
            $supplier = $this->suppliers[$made->code];
            $number = 'PO-'.(1000 + ++$orderId);
            $chance = new Chance($number);
            $rate = self::RATES[$made->currency] ?? 1.0;
            $open = $paper['arrival'] <= 0;
            $due = match (true) {
                -99 === $paper['arrival'] => 52,
                $open => -($made->open[1] ?? 0),
                default => $paper['day'] - $made->leadDays,
            };
            $total = 0.0;
            $lines = [];
            $shortBy = 0;
            foreach ($paper['lines'] as $position => $line) {
                $offer = $this->offers[$line['item']];
                $price =
                    LarkmoorSourcing::AGREED_ITEM === $line['item'] && $paper['day'] <= LarkmoorSourcing::AGREED_FOR
                        ? (float) LarkmoorSourcing::AGREED_PRICE * $offer->rule()->pack->content->toFloat()
                        : $offer->prices()->priceFor($line['packs'])->toFloat() *
                            ($paper['day'] > LarkmoorSourcing::ROSE_BEFORE ? LarkmoorSourcing::WAS : 1);
                $total += ($price * $line['packs']) / $rate;
                $lines[] = [++$lineId, $position + 1, $line, $offer, number_format($price, 4, '.', '')];
            }
            $confirmed = !$open || 1 === ($made->open[2] ?? 0);
            $sent = $this->instant($paper['day'], '09:'.$chance->between(10, 59));
            $orders->add(
                $orderId,
                $number,
                $supplier->id,
                $this->people['buyer']->id,
                1,
                $open ? ($confirmed && 52 !== $due ? 'acknowledged' : 'sent') : 'received',
                $made->currency,
                'EUR',
                number_format($rate, 8, '.', ''),
                (string) $made->tax,
                $made->tax()->category->value,
                '[]',
                '',
                '',
                '',
                '',
                '',
                $made->delivery,
                $made->note,
                $this->day($due),
                $confirmed && 52 !== $due ? $this->day($due) : null,
                $this->people[$total > 2500 ? 'owner' : 'buyer']->id,
                $sent,
                $sent,
                $confirmed && 52 !== $due ? $this->instant($paper['day'] - 1, '11:20') : null,
                1,
                $this->instant($paper['day'], '09:02'),
                $open ? bin2hex(random_bytes(16)) : null,
            );
            $audit->add(
                $this->instant($paper['day'], '09:02'),
                $this->people['buyer']->id,
                $number,
                'Drafted from Reorder',
            );
            $audit->add($sent, $this->people['buyer']->id, $number, 'Sent to '.($made->contact[0] ?? $made->name));
            $receiptsBySite = [];
            foreach ($lines as [$id, $position, $line, $offer, $price]) {
                $item = $this->items[$line['item']];
                $short = !$open && 0 === $shortBy && $line['packs'] > 3 && $chance->share() < 0.02 ? 1 : 0;
                $shortBy += $short;
                $packs = $open ? 0 : $line['packs'] - $short;
                $orderLines->add(
                    $id,
                    $orderId,
                    $position,
                    $item->id,
                    $offer->id,
                    $this->sites[$line['site']]->id,
                    $item->name(),
                    $offer->supplierCode(),
                    $offer->packName,
                    (string) $offer->rule()->pack->content,
                    $line['packs'],
                    $price,
                    $price,
                    '0',
                    '0',
                    '',
                    '',
                    $packs,
                    $short,
                );
                if (!$open) {
                    $receiptsBySite[$line['site']][] = [$id, $line, $packs, $short, $offer, $price];
                }
            }
            foreach ($receiptsBySite as $site => $siteLines) {
                $receipt = 'R-'.(1000 + ++$receiptId);
                $at = $this->instant($paper['arrival'], '10:'.$chance->between(10, 59));
                $deliveries->add(
                    $receiptId,
                    1,
                    $supplier->id,
                    $this->sites[$site]->id,
                    (string) (20000 + 31 * $receiptId),
                    $at,
                    $at,
                );
                $receipts->add(
                    $receiptId,
                    $receipt,
                    $receiptId,
                    $this->people['stockroom']->id,
                    $this->day($paper['arrival']),
                    $at,
                    'delivery-'.$receiptId,
                );
                $audit->add($at, $this->people['stockroom']->id, $number, 'Booked in as '.$receipt);
                foreach ($siteLines as [$id, $line, $packs, $short, $offer, $price]) {
                    $cost = number_format(
                        (float) $price / $rate / $offer->rule()->pack->content->toFloat(),
                        6,
                        '.',
                        '',
                    );
                    $lot = $this->items[$line['item']]->isLotTracked()
                        ? strtoupper(substr(hash('crc32b', $receipt.$line['item']), 0, 5))
                        : '';
                    $deliveryLines->add($receiptId, $id, $packs, $packs + $short, $short, $lot, null);
                    $receiptLines->add($receiptId, $id, $packs, $cost, $lot);
                    $received[$line['item']][$site][$paper['arrival']][] = [
                        $packs * $offer->rule()->pack->content->toInt(),
                        $receipt,
                        $cost,
                    ];
                }
            }
        }
        foreach ([$orders, $orderLines, $deliveries, $deliveryLines, $receipts, $receiptLines, $audit] as $bulk) {
            $bulk->flush();
        }
        $this->connection->executeStatement('INSERT INTO number_series (name, next) VALUES (?, ?), (?, ?)', [
            NumberSeries::ORDERS,
            1001 + $orderId,
            NumberSeries::RECEIPTS,
            1001 + $receiptId,
        ]);
        $this->writeLedger($trades, $received);
    }

    /**
     * @param array<string, array<string, LarkmoorTrade>>                                  $trades
     * @param array<string, array<string, array<int, list<array{int, string, string}>>>> $received
     */
    private function writeLedger(array $trades, array $received): void
    {
        $lots = new BulkInsert(
            $this->connection,
            'lot',
            ['item_id', 'number', 'expires_on'],
            ' ON DUPLICATE KEY UPDATE expires_on = expires_on',
        );
        $postings = [];
        foreach ($trades as $code => $bySite) {
            $item = $this->items[$code];
            foreach ($bySite as $site => $trade) {
                $siteId = $this->sites[$site]->id;
                $chance = new Chance('lots '.$code);
                $post = function (
                    MovementKind $kind,
                    int $quantity,
                    int $day,
                    string $reference,
                    ?string $cost,
                    string $lot,
                ) use (&$postings, $item, $siteId): void {
                    $postings[] = new Posting(
                        $item->id,
                        $siteId,
                        $kind,
                        BigDecimal::of($quantity),
                        null === $cost ? null : BigDecimal::of($cost),
                        $this->today->modify(-$day.' days'),
                        $reference,
                        null,
                        $lot,
                    );
                };
                /** @var list<array{string, int}> $held lots on the shelf, oldest first */
                $held = [];
                $opening = $trade->closing[self::LEDGER_DAYS];
                if ($opening > 0) {
                    $lot = $item->isLotTracked() ? strtoupper(substr(hash('crc32b', $code), 0, 5)) : '';
                    if ('' !== $lot) {
                        $lots->add($item->id, $lot, $this->day(-$chance->between(20, 75)));
                    }
                    $held[] = [$lot, $opening];
                    $post(
                        MovementKind::Opening,
                        $opening,
                        self::LEDGER_DAYS,
                        'opening',
                        (string) $item->averageCost(),
                        $lot,
                    );
                }
                for ($day = self::LEDGER_DAYS - 1; $day >= 1; --$day) {
                    foreach ($received[$code][$site][$day] ?? [] as [$units, $receipt, $cost]) {
                        $lot = $item->isLotTracked() ? strtoupper(substr(hash('crc32b', $receipt.$code), 0, 5)) : '';
                        if ('' !== $lot) {
                            $lots->add($item->id, $lot, $this->day($day - $chance->between(300, 700)));
                        }
                        $held[] = [$lot, $units];
                        $post(MovementKind::Receipt, $units, $day, $receipt, $cost, $lot);
                    }
                    $sold = $trade->sold[$day] ?? 0;
                    while ($sold > 0 && [] !== $held) {
                        $take = min($sold, $held[0][1]);
                        $post(
                            $item->isSold() ? MovementKind::Sale : MovementKind::Use,
                            -$take,
                            $day,
                            'day’s sales',
                            null,
                            $held[0][0],
                        );
                        $sold -= $take;
                        $held[0][1] -= $take;
                        if (0 === $held[0][1]) {
                            array_shift($held);
                        }
                    }
                }
            }
        }
        $lots->flush();
        // The ledger is written day by day, and what stock costs on average follows from it.
        usort($postings, static fn (Posting $a, Posting $b): int => $a->day <=> $b->day);
        $this->ledger->enter($postings, null);
        foreach ($this->averages->proven() as $item => $cost) {
            $this->connection->executeStatement('UPDATE item SET average_cost = ? WHERE id = ?', [$cost, $item]);
        }
        $this->costs->fromLedger();
    }

    private function waitingOrders(): void
    {
        $buyer = $this->people['buyer'];
        $this->connection->executeStatement('UPDATE number_series SET next = next + 2 WHERE name = ?', [
            NumberSeries::ORDERS,
        ]);
        $next = (int) (is_numeric(
            $value = $this->connection->fetchOne('SELECT next FROM number_series WHERE name = ?', [
                NumberSeries::ORDERS,
            ]),
        )
            ? $value
            : 0);
        $big = new PurchaseOrder(
            'PO-'.($next - 2),
            $this->suppliers['TINDAVIK'],
            $buyer,
            ExchangeRate::of('EUR', 'PLN', (string) self::RATES['PLN']),
            $this->today->modify('+24 days'),
            $this->clock->now()->modify('-20 hours'),
        );
        foreach (['BKT-15' => 24, 'BKT-30' => 16, 'BKT-5' => 20, 'TUB-500' => 14, 'TUB-250' => 16] as $code => $packs) {
            OrderLine::fromOffer($big, $this->offers[$code], $this->sites['DEPOT'], BigDecimal::of($packs));
        }
        $big->awaitApproval();
        $draft = new PurchaseOrder(
            'PO-'.($next - 1),
            $this->suppliers['LUMEN'],
            $buyer,
            ExchangeRate::of('EUR', 'EUR', 1),
            $this->today->modify('+13 days'),
            $this->clock->now()->modify('-2 hours'),
        );
        foreach (['BOT-500S' => 3, 'PK-LBH-S' => 2] as $code => $packs) {
            OrderLine::fromOffer($draft, $this->offers[$code], $this->sites['DEPOT'], BigDecimal::of($packs));
        }
        $this->entities->persist($big);
        $this->entities->persist($draft);
    }

    /** Customers waiting: twice for more than is there, and some that can be served. */
    private function promises(): void
    {
        /** @var list<array{code: string, site: string, held: string}> $stock */
        $stock = $this->connection->fetchAllAssociative(
            "SELECT i.code, s.code site, SUM(b.quantity) held FROM stock_balance b JOIN item i ON i.id = b.item_id
                JOIN site s ON s.id = b.site_id
             WHERE b.state = 'available' AND i.code REGEXP '^(HIV|JAR|FRM-[DS]|MED)' GROUP BY i.code, s.code
             HAVING held BETWEEN 1 AND 60 ORDER BY held, i.code LIMIT 14",
        );
        foreach ($stock as $i => $place) {
            if (0 === $i % 2) {
                $wanted = $i < 4 ? (int) $place['held'] + 3 : max(1, intdiv((int) $place['held'], 3));
                $promise = new CustomerPromise(
                    $this->items[$place['code']],
                    $this->sites[$place['site']],
                    BigDecimal::of($wanted),
                    $this->today->modify('+'.(2 + $i).' days'),
                    'sale '.(2231 + $i),
                );
                $promise->isFor(self::CUSTOMERS[$i % count(self::CUSTOMERS)], 'sale '.(2231 + $i));
                $this->entities->persist($promise);
            }
        }
    }

    /** What kinds of goods belong together. */
    private function categories(): void
    {
        $this->categories->knowAll();
        foreach (['The hive' => ['Hive parts', 'Frames', 'Tools', 'Clothing'],
            'Harvest' => ['Extraction', 'Jars and lids']] as $wider => $parts) {
            $this->connection->executeStatement('INSERT INTO category (name) VALUES (?)', [$wider]);
            $this->connection->executeStatement(
                'UPDATE category SET parent_id = LAST_INSERT_ID() WHERE name IN (?)',
                [$parts],
                [ArrayParameterType::STRING],
            );
        }
    }

    /** What people at Larkmoor know beforehand. */
    private function plans(): void
    {
        $saturday = $this->today->modify('saturday');
        $saturday = $saturday <= $this->today->modify('+2 days') ? $saturday->modify('+7 days') : $saturday;
        $jars = array_values(
            array_filter(array_keys($this->items), static fn (string $code): bool => str_starts_with($code, 'JAR-')),
        );
        foreach (array_slice($jars, 0, 4) as $i => $code) {
            $this->entities->persist(
                new PlannedNeed(
                    $this->items[$code],
                    $this->sites['FERRY'],
                    BigDecimal::of([96, 72, 48, 48][$i]),
                    $saturday,
                    'Advent market',
                    $this->people['buyer'],
                ),
            );
        }
        foreach (
            array_slice(
                array_values(
                    array_filter(
                        array_keys($this->items),
                        static fn (string $code): bool => 1 === preg_match('/^(WAX|CND)/', $code),
                    ),
                ),
                0,
                2,
            ) as $code
        ) {
            $this->entities->persist(
                new PlannedNeed(
                    $this->items[$code],
                    $this->sites['DEPOT'],
                    BigDecimal::of(40),
                    $this->today->modify('+17 days'),
                    'Candle workshop, Sallow Bridge school',
                    $this->people['owner'],
                ),
            );
        }
        $christmas = new \DateTimeImmutable($this->today->format('Y').'-12-24');
        $this->entities->persist(new Closure(null, $christmas, $christmas->modify('+8 days'), 'Christmas'));
        $this->entities->persist(
            new Closure(
                $this->suppliers['BRENMOOR'],
                $christmas->modify('-3 days'),
                $christmas->modify('+10 days'),
                'Joinery shut',
            ),
        );
        $this->entities->persist(new OrderList('Jars and lids', null, null, 'Jars and lids'));
        $this->entities->persist(new OrderList('Millbank shelf', null, $this->sites['MILL']));
        $this->entities->persist(
            new OrderList(
                'Counter supplies',
                null,
                null,
                '',
                array_values(array_filter($this->items, static fn (Item $item): bool => !$item->isSold())),
            ),
        );
        foreach ($this->offers as $offer) {
            if ('OSTREL' === $offer->supplier->code) {
                $offer->announce(BigDecimal::of(6), $this->today->modify('+2 days'));
            }
        }
        $par = array_values(array_filter($this->items, static fn (Item $item): bool => !$item->isSold()))[0] ?? null;
        if (null !== $par) {
            $this->entities->persist(
                new ItemPolicy($par, Policy::of(PolicyKind::Par, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), 40)),
            );
        }
        // A club bought a year's jars in one go; planning must not take it for a trend.
        $this->entities->flush();
        $this->connection->executeStatement(
            'UPDATE sales_day SET quantity = quantity + 900 WHERE item_id = ? AND site_id = ? AND day = ?',
            [
                $this->items['JAR-340R']->id,
                $this->sites['DEPOT']->id,
                $this->connection->fetchOne(
                    'SELECT MAX(day) FROM sales_day WHERE item_id = ? AND site_id = ? AND day < ? AND quantity > 0',
                    [$this->items['JAR-340R']->id, $this->sites['DEPOT']->id, $this->day(63)],
                ),
            ],
        );
    }

    /** A day so many days ago (or ahead, below zero); deliveries fall on working days. */
    private function day(int $ago): string
    {
        return $this->today->modify(-$ago.' days')->format('Y-m-d');
    }

    private function instant(int $ago, string $time): string
    {
        return $this->day($ago).' '.$time.':00';
    }
}
