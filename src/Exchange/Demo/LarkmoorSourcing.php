<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Audit\AuditEntry;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\TaxRate;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrice;
use TallBarrel\Store\Offer\PriceList;
use TallBarrel\Store\Offer\PriceTerm;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteLetter;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Sourcing\BringPriceList;
use TallBarrel\Work\Sourcing\PriceListToRead;

/**
 * The demo's suppliers side by side: who else offers what, a quote round that is out, one that is settled, agreements.
 */
final readonly class LarkmoorSourcing
{
    /** The item Vetrasol has an agreement for, since so many days. */
    public const AGREED_ITEM = 'JAR-340R';
    public const AGREED_PRICE = '0.62';
    public const AGREED_FOR = 230;
    /** So many days ago everybody's prices rose, from this share of today's. */
    public const ROSE_BEFORE = 60;
    public const WAS = 0.98;
    private const DUTY = ['KESTRANE' => '3.7', 'MURREL' => '0', 'BRENMOOR' => '0'];
    private const ORIGIN = [
        'KESTRANE' => 'US',
        'MURREL' => 'GB',
        'BRENMOOR' => 'GB',
        'TINDAVIK' => 'PL',
        'VETRASOL' => 'CZ',
        'LUMEN' => 'DK',
    ];
    /** Whose items somebody else offers too: every so-manyth, at this factor of the price in the home currency. */
    private const OTHERS = [
        'BRENMOOR' => [['STANNERY', 3, 1.05, 9], ['KESTRANE', 4, 0.93, 19]],
        'KESTRANE' => [['STANNERY', 2, 1.08, 9]],
        'POLLENBY' => [['OSTREL', 2, 1.04, 13]],
        'MURREL' => [['STANNERY', 3, 1.1, 9], ['KESTRANE', 2, 0.95, 19]],
        'OSTREL' => [['HALDERVANE', 3, 1.06, 8]],
    ];

    /**
     * @param array<string, Supplier> $suppliers
     * @param array<string, Item>     $items
     * @param array<string, Offer>    $offers
     * @param array<string, Site>     $sites
     * @param array<string, float>    $rates
     */
    public function __construct(
        private EntityManagerInterface $entities,
        private array $suppliers,
        private array $items,
        private array $offers,
        private array $sites,
        private array $rates,
        private Person $buyer,
        private \DateTimeImmutable $now,
        private BringPriceList $priceLists,
    ) {
    }

    public function load(): void
    {
        $this->suppliers();
        $this->offers();
        $this->entities->flush();
        $this->agreements();
        $this->agreedPrices();
        $this->taxRates();
        $this->rounds();
        $this->entities->flush();
        $this->prices();
    }

    /** A pool of keepers buys for all its members; what is for candles costs less by how much is taken. */
    private function agreedPrices(): void
    {
        foreach (['OSTREL', 'HALDERVANE'] as $code) {
            $this->suppliers[$code]->belongTo('Keepers’ pool');
        }
        foreach ($this->items as $item) {
            if ('Candles' === $item->category()) {
                $item->belongTo('Candles');
            }
        }
        $pool = new PriceTerm($this->now->setTime(0, 0)->modify('first day of this month'));
        $pool->isFor(null, 'Keepers’ pool', null, 'Candles');
        $pool->gives('Pool bonus on candles', AgreedKind::Discount, BreakBasis::Quantity, '', '0=3 60=5');
        $this->entities->persist($pool);
        $year = new PriceTerm($this->now->setTime(0, 0)->modify('first day of january next year'));
        $year->isFor($this->suppliers['STANNERY'], '', null, '');
        $year->gives('Loyalty from the new year', AgreedKind::Discount, BreakBasis::Value, 'EUR', '500=2 1500=4');
        $this->entities->persist($year);
    }

    private function taxRates(): void
    {
        foreach (['standard' => '23', 'reduced' => '13.5'] as $name => $percent) {
            $this->entities->persist(
                new TaxRate($name, Tax::percent($percent), new \DateTimeImmutable('2021-03-01')),
            );
        }
    }

    private function suppliers(): void
    {
        $tindavik = $this->suppliers['TINDAVIK'];
        $tindavik->reckonsFreight(FreightTariff::PALLET, '', BigDecimal::of(450));
        $tindavik->ships(BigDecimal::of(310), BigDecimal::of(900));
        $brenmoor = $this->suppliers['BRENMOOR'];
        $brenmoor->reckonsFreight(FreightTariff::WEIGHT, '0=14 30=26 100=58 300=110');
        $kestrane = $this->suppliers['KESTRANE'];
        $kestrane->agreeTerms(PaymentTerms::net(45)->withDeposit(30));
        $kestrane->jot('Their agent in Cork answers faster than the works.');
        $haldervane = $this->suppliers['HALDERVANE'];
        $haldervane->agreeTerms(PaymentTerms::net(30)->fromEndOfMonth());
        $this->suppliers['LUMEN']->isPaidThrough($this->suppliers['VETRASOL']);
        $this->suppliers['LUMEN']->seen();
        $this->suppliers['LUMEN']->orderThrough('Signe Aaby', 'pris@lumenfold.example', '', Contact::QUOTES);
        $this->suppliers['VETRASOL']->orderThrough('Radek Holm', 'quotes@vetrasol.example', '', Contact::QUOTES);
        $this->suppliers['MURREL']->takesAtLeast(BigDecimal::of(20), null);
        $this->suppliers['STANNERY']->ships(BigDecimal::of(12), null);
        $this->suppliers['STANNERY']->asksFor(BigDecimal::of(80), BigDecimal::of(450));
    }

    private function offers(): void
    {
        $n = 0;
        foreach ($this->offers as $code => $offer) {
            $supplier = $offer->supplier->code;
            $offer->describe(
                '',
                '',
                'Jars and lids' === $this->items[$code]->category() && 'case' === $offer->packName
                    ? 'layer=8 pallet=6'
                    : '',
            );
            $offer->comesFrom(
                self::ORIGIN[$supplier] ?? '',
                'KESTRANE' === $supplier ? '73269098' : '',
                BigDecimal::of(self::DUTY[$supplier] ?? '0'),
            );
            ++$n;
            foreach (self::OTHERS[$supplier] ?? [] as $k => [$other, $every, $factor, $lead]) {
                if (0 === ($n + $k) % $every) {
                    $this->also($offer, $this->suppliers[$other], $factor, $lead);
                }
            }
        }
        // A supplier that lists prices and takes off discounts; another whose breaks lower only what goes beyond them.
        foreach (['FEED-SYR-14', 'FEED-FON-25'] as $code) {
            $offer = $this->offers[$code];
            $offer->price(
                PriceBreaks::of([
                    [1, $offer->listPrices()->steps[0]['price']->dividedBy('0.855', 2, RoundingMode::HalfUp)],
                ]),
            );
            $offer->discount(ChainedDiscounts::read('10 + 5'));
        }
        foreach (['FND-WW', 'HIV-NBBC'] as $code) {
            $offer = $this->offers[$code] ?? null;
            if (null !== $offer) {
                $price = $offer->listPrices()->steps[0]['price'];
                $offer->price(
                    PriceBreaks::of(
                        [
                            [1, $price],
                            [10, $price->multipliedBy('0.95')->toScale(2, RoundingMode::HalfUp)],
                            [30, $price->multipliedBy('0.9')->toScale(2, RoundingMode::HalfUp)],
                        ],
                        BreakKind::Incremental,
                    ),
                );
            }
        }
    }

    private function also(Offer $offer, Supplier $other, float $factor, int $lead): void
    {
        $home =
            $offer->listPrices()->steps[0]['price']->toFloat() /
            ($this->rates[$offer->supplier->currency()->code] ?? 1.0);
        $price = $home * ($this->rates[$other->currency()->code] ?? 1.0) * $factor;
        $second = new Offer(
            $other,
            $offer->item,
            substr($other->code, 0, 2).'-'.$offer->item->code,
            $offer->packName,
            $offer->rule()->pack->content,
        );
        $second->sellBy(BuyingRule::of(Pack::of($offer->packName, $offer->rule()->pack->content)));
        $second->price(
            PriceBreaks::of([[1, number_format($price, 2, '.', '')], [12, number_format($price * 0.96, 2, '.', '')]]),
        );
        $second->promise($lead, 2, $this->now->setTime(0, 0)->modify('+120 days'));
        $second->comesFrom(self::ORIGIN[$other->code] ?? '', '', BigDecimal::of(self::DUTY[$other->code] ?? '0'));
        $this->entities->persist($second);
    }

    /** What Vetrasol's jars cost before, and the list with which they are to rise. */
    private function prices(): void
    {
        $since = $this->now->setTime(0, 0)->modify(sprintf('-%d days', self::ROSE_BEFORE));
        $lines = ['code,prices,item,description,pack,content'];
        $n = 0;
        foreach ($this->offers as $code => $offer) {
            if ('VETRASOL' !== $offer->supplier->code) {
                continue;
            }
            $old = PriceBreaks::of(
                array_map(
                    static fn (array $step): array => [
                        $step['from'],
                        number_format($step['price']->toFloat() * self::WAS, 4, '.', ''),
                    ],
                    $offer->listPrices()->steps,
                ),
            );
            $this->entities->persist(new OfferPrice($offer, null, $old, 'before', true));
            $this->entities->persist(
                new OfferPrice($offer, $since, $offer->listPrices(), 'price list of '.$since->format('j M Y'), true),
            );
            $factor = [1.034, 1.028, 1.0, 1.112, 0.985, 1.034, 1.021][$n % 7];
            $listed = PriceBreaks::of(
                array_map(
                    static fn (array $step): array => [
                        $step['from'],
                        number_format($step['price']->toFloat() * $factor, 2, '.', ''),
                    ],
                    $offer->listPrices()->steps,
                ),
            );
            if (16 !== ++$n) {
                $lines[] = sprintf(
                    '%s,%s,%s,"%s",%s,%s',
                    $offer->supplierCode(),
                    $listed->label(),
                    $code,
                    $this->items[$code]->name(),
                    $offer->packName,
                    6 === $n ? 10 : $offer->rule()->pack->content,
                );
            }
        }
        $lines[] = 'VG-0500-S,1=8.10 40=7.85,,"Square jar 500 ml",case,12';
        $lines[] = 'VG-0250-F,on request,,"Flask 250 ml",case,20';
        $this->entities->flush();
        $file = (string) tempnam(sys_get_temp_dir(), 'list');
        file_put_contents($file, implode("\r\n", $lines));
        $year = (int) $this->now->format('Y') + 1;
        $list = new PriceList(
            $this->suppliers['VETRASOL'],
            $this->buyer,
            $this->now->modify('-1 day')->setTime(15, 40),
            sprintf('vetrasol-%d.csv', $year),
            true,
            new \DateTimeImmutable($year.'-01-01'),
            null,
            BigDecimal::of(5),
        );
        $this->priceLists->bring($list, $file);
        $this->priceLists->read(new PriceListToRead($list->id));
        unlink($file);
    }

    /** Who did what, on a day. */
    private function happened(\DateTimeImmutable $at, string $subject, string $words): void
    {
        $this->entities->persist(new AuditEntry($at, $this->buyer, $subject, $words));
    }

    private function agreements(): void
    {
        $today = $this->now->setTime(0, 0);
        $jars = new Agreement('A-1001', $this->suppliers['VETRASOL'], $this->items[self::AGREED_ITEM], '');
        $jars->promise(
            Agreement::QUANTITY,
            BigDecimal::of(15000),
            BigDecimal::of(self::AGREED_PRICE),
            BigDecimal::of(240),
            BigDecimal::of(10),
        );
        $jars->hold(
            $today->modify(sprintf('-%d days', self::AGREED_FOR)),
            $today->modify('+134 days'),
            'A year on, if neither says otherwise by the end of February.',
        );
        $feed = new Agreement('A-1002', $this->suppliers['POLLENBY'], null, 'Feed');
        $feed->promise(Agreement::VALUE, BigDecimal::of(140000), null, BigDecimal::of(150), BigDecimal::of(5));
        $feed->hold($today->modify('-200 days'), $today->modify('+165 days'), '');
        foreach ([$jars, $feed] as $agreement) {
            $this->entities->persist($agreement);
            $this->happened(
                \DateTimeImmutable::createFromInterface($agreement->firstDay())->modify('-6 days')->setTime(11, 20),
                $agreement->number,
                'Agreed',
            );
        }
        $this->entities->flush();
        $connection = $this->entities->getConnection();
        foreach (
            [
                [$jars, 'i.id = '.$this->items[self::AGREED_ITEM]->id],
                [$feed, "i.category = 'Feed'"],
            ] as [$agreement, $which]
        ) {
            $connection->executeStatement(
                "UPDATE order_line l JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
                    SET l.agreement_id = ? WHERE o.supplier_id = ? AND o.sent_at >= ? AND {$which}",
                [$agreement->id, $agreement->supplier->id, $agreement->firstDay()->format('Y-m-d')],
            );
        }
        $connection->executeStatement('INSERT INTO number_series (name, next) VALUES (?, 1003)', [
            NumberSeries::AGREEMENTS,
        ]);
    }

    private function rounds(): void
    {
        $this->settled();
        $asked = $this->now->modify('-3 days')->setTime(9, 20);
        $round = new QuoteRound(
            'Q-1002',
            $this->buyer,
            $this->sites['DEPOT'],
            $this->now->setTime(0, 0)->modify('+4 days'),
            $this->now->setTime(0, 0)->modify('+25 days'),
            $asked,
        );
        $jar = $round->ask($this->items['JAR-370H'], '', [BigDecimal::of(576), BigDecimal::of(1200)]);
        $quotes = [];
        foreach (['LUMEN', 'TINDAVIK', 'OSTREL', 'KESTRANE'] as $code) {
            $quotes[$code] = $round->invite($this->suppliers[$code]);
        }
        $this->entities->persist($round);
        $this->entities->flush();
        $round->send($asked);
        $this->happened($asked, 'Q-1002', 'Sent to 4 suppliers');
        foreach ($quotes as $quote) {
            $quote->asked($asked);
            $quote->keep(
                new QuoteLetter(
                    $quote,
                    $asked,
                    true,
                    'Q-1002: your price for Hex jar 370 ml, please',
                    'Asked by email with the PDF, the CSV and the link to their own page.',
                ),
            );
        }
        $this->answer(
            $quotes['LUMEN'],
            $asked->modify('+2 hours'),
            [[$jar->id, [['576', '0.800'], ['1200', '0.782']], '', null]],
            11,
            '0',
            'Free at your gate from one pallet.',
        );
        $this->answer(
            $quotes['TINDAVIK'],
            $asked->modify('+1 day +5 hours'),
            [[$jar->id, [['576', '3.16'], ['1200', '3.02']], '', '480']],
            22,
            null,
            '',
        );
        $quotes['KESTRANE']->decline('We do not make glass.');
    }

    private function settled(): void
    {
        $asked = $this->now->modify('-40 days')->setTime(10, 5);
        $round = new QuoteRound(
            'Q-1001',
            $this->buyer,
            $this->sites['FERRY'],
            $asked->setTime(0, 0)->modify('+7 days'),
            $asked->setTime(0, 0)->modify('+30 days'),
            $asked,
        );
        $lids = $round->ask($this->items['LID-63G'], '', [BigDecimal::of(4000)]);
        $quotes = [];
        foreach (['VETRASOL', 'LUMEN', 'STANNERY'] as $code) {
            $quotes[$code] = $round->invite($this->suppliers[$code]);
        }
        $this->entities->persist($round);
        $this->entities->flush();
        $round->send($asked);
        $this->happened($asked, 'Q-1001', 'Sent to 3 suppliers');
        foreach ($quotes as $quote) {
            $quote->asked($asked);
        }
        $this->answer(
            $quotes['VETRASOL'],
            $asked->modify('+5 hours'),
            [[$lids->id, [['4000', '0.0405']], '', null]],
            6,
            null,
            '',
        );
        $this->answer(
            $quotes['LUMEN'],
            $asked->modify('+3 days'),
            [[$lids->id, [['4000', '0.0430']], 'silver, if gold is out', null]],
            11,
            '15',
            '',
        );
        $round->settle([$quotes['VETRASOL']], $asked->modify('+8 days'));
        $this->happened($asked->modify('+8 days'), 'Q-1001', 'Awarded: Vetrasol Glassworks');
        $this->entities
            ->getConnection()
            ->executeStatement('INSERT INTO number_series (name, next) VALUES (?, 1003)', [NumberSeries::ROUNDS]);
    }

    /** @param list<array{int, list<array{string, string}>, string, string|null}> $lines */
    private function answer(
        Quote $quote,
        \DateTimeImmutable $at,
        array $lines,
        int $lead,
        ?string $charges,
        string $note,
    ): void {
        $quote->answer(
            new QuoteAnswer(
                $quote,
                $at,
                QuoteAnswer::PAGE,
                $quote->round->isLate($at),
                $lead,
                $at->setTime(0, 0)->modify('+60 days'),
                null === $charges ? null : BigDecimal::of($charges),
                $note,
                array_map(
                    static fn (array $line): array => [
                        'item' => $line[0],
                        'prices' => $line[1],
                        'most' => $line[3],
                        'multiple' => null,
                        'code' => '',
                        'alternate' => $line[2],
                    ],
                    $lines,
                ),
            ),
        );
        $quote->opened($at->modify('-10 minutes'));
    }
}
