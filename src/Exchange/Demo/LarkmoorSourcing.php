<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteLetter;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;

/** The demo's suppliers side by side: who else offers what, a quote round that is out, one that is settled, agreements. */
final readonly class LarkmoorSourcing
{
    private const DUTY = ['KESTRANE' => '3.7', 'MURREL' => '0', 'BRENMOOR' => '0'];
    private const ORIGIN = ['KESTRANE' => 'US', 'MURREL' => 'GB', 'BRENMOOR' => 'GB', 'TINDAVIK' => 'PL', 'VETRASOL' => 'CZ', 'LUMEN' => 'DK'];
    /** Whose items somebody else offers too: every so-manyth, at this factor of the price in the home currency. */
    private const OTHERS = ['BRENMOOR' => [['STANNERY', 3, 1.05, 9], ['KESTRANE', 4, .93, 19]], 'KESTRANE' => [['STANNERY', 2, 1.08, 9]], 'POLLENBY' => [['OSTREL', 2, 1.04, 13]], 'MURREL' => [['STANNERY', 3, 1.1, 9], ['KESTRANE', 2, .95, 19]], 'OSTREL' => [['HALDERVANE', 3, 1.06, 8]]];

    /**
     * @param array<string, Supplier> $suppliers
     * @param array<string, Item>     $items
     * @param array<string, Offer>    $offers
     * @param array<string, Site>     $sites
     * @param array<string, float>    $rates
     */
    public function __construct(private EntityManagerInterface $entities, private array $suppliers, private array $items, private array $offers, private array $sites, private array $rates, private Person $buyer, private \DateTimeImmutable $now)
    {
    }

    public function load(): void
    {
        $this->suppliers();
        $this->offers();
        $this->entities->flush();
        $this->agreements();
        $this->rounds();
        $this->entities->flush();
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
            $offer->describe('', '', 'Jars and lids' === $this->items[$code]->category() && 'case' === $offer->packName ? 'layer=8 pallet=6' : '');
            $offer->comesFrom(self::ORIGIN[$supplier] ?? '', 'KESTRANE' === $supplier ? '73269098' : '', BigDecimal::of(self::DUTY[$supplier] ?? '0'));
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
            $offer->price(PriceBreaks::of([[1, $offer->listPrices()->steps[0]['price']->dividedBy('0.855', 2, \Brick\Math\RoundingMode::HalfUp)]]));
            $offer->discount(ChainedDiscounts::read('10 + 5'));
        }
        foreach (['FND-WW', 'HIV-NBBC'] as $code) {
            $offer = $this->offers[$code] ?? null;
            if (null !== $offer) {
                $price = $offer->listPrices()->steps[0]['price'];
                $offer->price(PriceBreaks::of([[1, $price], [10, $price->multipliedBy('0.95')->toScale(2, \Brick\Math\RoundingMode::HalfUp)], [30, $price->multipliedBy('0.9')->toScale(2, \Brick\Math\RoundingMode::HalfUp)]], BreakKind::Incremental));
            }
        }
    }

    private function also(Offer $offer, Supplier $other, float $factor, int $lead): void
    {
        $home = $offer->listPrices()->steps[0]['price']->toFloat() / ($this->rates[$offer->supplier->currency()->code] ?? 1.0);
        $price = $home * ($this->rates[$other->currency()->code] ?? 1.0) * $factor;
        $second = new Offer($other, $offer->item, substr($other->code, 0, 2).'-'.$offer->item->code, $offer->packName, $offer->rule()->pack->content);
        $second->sellBy(BuyingRule::of(Pack::of($offer->packName, $offer->rule()->pack->content)));
        $second->price(PriceBreaks::of([[1, number_format($price, 2, '.', '')], [12, number_format($price * .96, 2, '.', '')]]));
        $second->promise($lead, 2, $this->now->setTime(0, 0)->modify('+120 days'));
        $second->comesFrom(self::ORIGIN[$other->code] ?? '', '', BigDecimal::of(self::DUTY[$other->code] ?? '0'));
        $this->entities->persist($second);
    }

    private function agreements(): void
    {
        $today = $this->now->setTime(0, 0);
        $jars = new Agreement('A-1001', $this->suppliers['VETRASOL'], $this->items['JAR-340R'], '');
        $jars->promise(Agreement::QUANTITY, BigDecimal::of(15000), BigDecimal::of('0.62'), BigDecimal::of(240), BigDecimal::of(10));
        $jars->hold($today->modify('-230 days'), $today->modify('+134 days'), 'A year on, if neither says otherwise by the end of February.');
        $feed = new Agreement('A-1002', $this->suppliers['POLLENBY'], null, 'Feed');
        $feed->promise(Agreement::VALUE, BigDecimal::of(140000), null, BigDecimal::of(150), BigDecimal::of(5));
        $feed->hold($today->modify('-200 days'), $today->modify('+165 days'), '');
        foreach ([$jars, $feed] as $agreement) {
            $this->entities->persist($agreement);
        }
        $this->entities->flush();
        $connection = $this->entities->getConnection();
        foreach ([[$jars, 'i.id = '.$this->items['JAR-340R']->id], [$feed, "i.category = 'Feed'"]] as [$agreement, $which]) {
            $connection->executeStatement("UPDATE order_line l JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id SET l.agreement_id = ? WHERE o.supplier_id = ? AND o.sent_at >= ? AND {$which}", [$agreement->id, $agreement->supplier->id, $agreement->firstDay()->format('Y-m-d')]);
        }
        $connection->executeStatement('INSERT INTO number_series (name, next) VALUES (?, 1003)', [NumberSeries::AGREEMENTS]);
    }

    private function rounds(): void
    {
        $this->settled();
        $asked = $this->now->modify('-3 days')->setTime(9, 20);
        $round = new QuoteRound('Q-1002', $this->buyer, $this->sites['DEPOT'], $this->now->setTime(0, 0)->modify('+4 days'), $this->now->setTime(0, 0)->modify('+25 days'), $asked);
        $jar = $round->ask($this->items['JAR-370H'], '', [BigDecimal::of(576), BigDecimal::of(1200)]);
        $quotes = [];
        foreach (['LUMEN', 'TINDAVIK', 'OSTREL', 'KESTRANE'] as $code) {
            $quotes[$code] = $round->invite($this->suppliers[$code]);
        }
        $this->entities->persist($round);
        $this->entities->flush();
        $round->send($asked);
        foreach ($quotes as $quote) {
            $quote->asked($asked);
            $quote->keep(new QuoteLetter($quote, $asked, true, 'Q-1002: your price for Hex jar 370 ml, please', 'Asked by email with the PDF, the CSV and the link to their own page.'));
        }
        $this->answer($quotes['LUMEN'], $asked->modify('+2 hours'), [[$jar->id, [['576', '0.800'], ['1200', '0.782']], '', null]], 11, '0', 'Free at your gate from one pallet.');
        $this->answer($quotes['TINDAVIK'], $asked->modify('+1 day +5 hours'), [[$jar->id, [['576', '3.16'], ['1200', '3.02']], '', '480']], 22, null, '');
        $quotes['KESTRANE']->decline('We do not make glass.');
    }

    private function settled(): void
    {
        $asked = $this->now->modify('-40 days')->setTime(10, 5);
        $round = new QuoteRound('Q-1001', $this->buyer, $this->sites['FERRY'], $asked->setTime(0, 0)->modify('+7 days'), $asked->setTime(0, 0)->modify('+30 days'), $asked);
        $lids = $round->ask($this->items['LID-63G'], '', [BigDecimal::of(4000)]);
        $quotes = [];
        foreach (['VETRASOL', 'LUMEN', 'STANNERY'] as $code) {
            $quotes[$code] = $round->invite($this->suppliers[$code]);
        }
        $this->entities->persist($round);
        $this->entities->flush();
        $round->send($asked);
        foreach ($quotes as $quote) {
            $quote->asked($asked);
        }
        $this->answer($quotes['VETRASOL'], $asked->modify('+5 hours'), [[$lids->id, [['4000', '0.0405']], '', null]], 6, null, '');
        $this->answer($quotes['LUMEN'], $asked->modify('+3 days'), [[$lids->id, [['4000', '0.0430']], 'silver, if gold is out', null]], 11, '15', '');
        $round->settle([$quotes['VETRASOL']], $asked->modify('+8 days'));
        $this->entities->getConnection()->executeStatement('INSERT INTO number_series (name, next) VALUES (?, 1003)', [NumberSeries::ROUNDS]);
    }

    /** @param list<array{int, list<array{string, string}>, string, string|null}> $lines */
    private function answer(Quote $quote, \DateTimeImmutable $at, array $lines, int $lead, ?string $charges, string $note): void
    {
        $quote->answer(new QuoteAnswer($quote, $at, QuoteAnswer::PAGE, $quote->round->isLate($at), $lead, $at->setTime(0, 0)->modify('+60 days'), null === $charges ? null : BigDecimal::of($charges), $note, array_map(
            static fn (array $line): array => ['item' => $line[0], 'prices' => $line[1], 'most' => $line[3], 'multiple' => null, 'code' => '', 'alternate' => $line[2]], $lines,
        )));
        $quote->opened($at->modify('-10 minutes'));
    }
}
