<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Receiving\InspectionLevel;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\SupplierReturnLine;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Serial;
use TallBarrel\Store\Stock\StockState;

/** What stands at the demo's dock besides what is expected: goods to be looked at, held back, going back. */
final readonly class LarkmoorDock
{
    private const SERIALS = 'EQ-X9';
    private const INSPECTED = 'CND-SHEET';
    private const HELD = 'CND-MLD-S';
    private const AT_DOCK = 'BKT-30';

    /**
     * @param array<string, Item> $items
     * @param array<string, Site> $sites
     */
    public function __construct(
        private EntityManagerInterface $entities,
        private Ledger $ledger,
        private array $items,
        private array $sites,
        private Person $stockroom,
        private \DateTimeImmutable $now,
    ) {
    }

    public function load(): void
    {
        foreach ($this->items as $item) {
            if ('Treatments' === $item->category()) {
                $item->isReceived(LotDetails::NewLots, false, InspectionRule::Never, '1.5');
            }
        }
        $extractors = $this->items[self::SERIALS];
        $extractors->isReceived(LotDetails::Never, true, InspectionRule::Never, '1.5');
        foreach (['4471', '4472', '4479'] as $n => $number) {
            $serial = new Serial($extractors, 'KX9-'.$number, null);
            if (0 === $n) {
                $serial->goes('Whin Top Apiary', $this->now->modify('-18 days')->setTime(0, 0));
            }
            $this->entities->persist($serial);
        }
        $this->items[self::INSPECTED]->isReceived(LotDetails::Never, false, InspectionRule::Sample, '2.5');
        $this->entities->flush();
        $this->change($this->lastOf(self::INSPECTED), 60, StockState::InInspection, 'looked at');
        $this->items[self::INSPECTED]->isLookedAt(InspectionLevel::Two, "colour even\nno cracks\nsheets part by hand");
        $this->items[self::AT_DOCK]->isReceived(LotDetails::Never, false, InspectionRule::Dock, '1.5');
        $this->entities->flush();
        $this->change($this->lastOf(self::AT_DOCK), 12, StockState::AtDock, 'came');
        $held = $this->lastOf(self::HELD);
        $this->change($held, 2, StockState::Held, 'broken');
        $this->sendBack($held);
        $this->entities->flush();
        $this->transfer(['LID-82G' => [48, '']], 0);
        $this->transfer(['TUB-250' => [24, ''], 'MED-WAX' => [6, $this->lotOf('MED-WAX')]], 1);
    }

    /** As it came last. */
    private function lastOf(string $code): ReceiptLine
    {
        /** @var ReceiptLine $line */
        $line = $this->entities
            ->createQuery(
                'SELECT x FROM '.ReceiptLine::class.' x JOIN x.line l JOIN l.item i WHERE i.code = :code
                 ORDER BY x.id DESC',
            )
            ->setParameter('code', $code)
            ->setMaxResults(1)
            ->getSingleResult();

        return $line;
    }

    private function change(ReceiptLine $line, int $units, StockState $to, string $reason): void
    {
        $postings = [];
        foreach ([[-$units, StockState::Available], [$units, $to]] as [$quantity, $state]) {
            $postings[] = new Posting(
                $line->line->item->id ?? 0,
                $line->receipt->delivery->site->id,
                MovementKind::Inspected,
                BigDecimal::of($quantity),
                null,
                $line->receipt->day,
                $reason,
                null,
                $line->lot,
                $state,
            );
        }
        $this->ledger->enter($postings, $this->stockroom->id);
    }

    private function sendBack(ReceiptLine $line): void
    {
        $back = new SupplierReturn(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::RETURNS, $this->now),
            $line->receipt,
            StockState::Held,
            ReturnWish::Replacement,
            'broken on arrival',
            'two of the moulds are torn at the seam',
            $this->stockroom,
            $this->now->modify('-3 hours'),
            'return-demo',
        );
        new SupplierReturnLine($back, $line, BigDecimal::of(2));
        $this->entities->persist($back);
    }

    /** The lot of it that stands at the depot. */
    private function lotOf(string $code): string
    {
        $lot = $this->entities->getConnection()->fetchOne(
            "SELECT lot FROM stock_balance WHERE item_id = ? AND site_id = ? AND state = 'available'
             ORDER BY quantity DESC LIMIT 1",
            [$this->items[$code]->id, $this->sites['DEPOT']->id],
        );

        return is_string($lot) ? $lot : '';
    }

    /**
     * From the depot to Ferry Lane.
     *
     * @param array<string, array{int, string}> $goods   units and lot, by item
     * @param int                               $daysAgo it left; 0 if it is still to be picked
     */
    private function transfer(array $goods, int $daysAgo): void
    {
        $at = $this->now->modify(sprintf('-%d days', $daysAgo));
        $day = $at->setTime(0, 0);
        $transfer = new Transfer(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::TRANSFERS, $this->now),
            $this->sites['DEPOT'],
            $this->sites['FERRY'],
            $day->modify('+1 day'),
            $this->stockroom,
            $at,
        );
        $this->entities->persist($transfer);
        $postings = [];
        foreach ($goods as $code => [$units, $lot]) {
            $item = $this->items[$code];
            $many = BigDecimal::of($units);
            $line = $transfer->ask($item, $many, $transfer->number.'-'.$code);
            if ($daysAgo > 0) {
                $line->pick($lot, $many);
                $postings[] = new Posting($item->id, $transfer->source->id, MovementKind::Transfer, $many->negated(),
                    null, $day, $transfer->number, null, $lot);
                $postings[] = new Posting($item->id, $transfer->target->id, MovementKind::Transfer, $many,
                    null, $day, $transfer->number, null, $lot, StockState::OnItsWay);
            }
        }
        if ($daysAgo > 0) {
            $transfer->leave($day, $day->modify('+1 day'));
        }
        $this->entities->flush();
        $this->ledger->enter($postings, $this->stockroom->id);
    }
}
