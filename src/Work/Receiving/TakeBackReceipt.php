<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\AverageCosts;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Serials;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Settling\ExpectCharges;

/**
 * Takes a receipt that was booked by mistake back, whole or by line, by its opposite: stock, cost and order are as if
 * it had not been. Only as long as what it booked is still there, and on no invoice.
 */
final readonly class TakeBackReceipt
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Receipts $receipts,
        private SupplierReturns $returns,
        private LandedCharges $charges,
        private ExpectCharges $expect,
        private Invoices $invoices,
        private Serials $serials,
        private Orders $orders,
        private Balances $balances,
        private Ledger $ledger,
        private AverageCosts $averages,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Asked twice for the same lines, it answers with the receipt that exists and books nothing.
     *
     * @param list<int> $lines ids of the receipt's lines
     *
     * @throws Refused without a reason or a line, or where one of them can no longer be taken back
     */
    public function takeBack(Receipt $receipt, array $lines, string $why, Person $by): Receipt
    {
        $why = trim($why);
        if ('' === $why) {
            throw new Refused('Say why it is taken back.');
        }
        if (null !== $receipt->takesBack) {
            throw new Refused(sprintf('%s takes %s back itself.', $receipt->number, $receipt->takesBack->number));
        }

        return $this->whole->take(function () use ($receipt, $lines, $why, $by): Receipt {
            $this->entities->lock($receipt, LockMode::PESSIMISTIC_WRITE);
            $before = $this->receipts->takenBack($receipt);
            $meant = array_values(array_filter(
                $receipt->lines(),
                static fn (ReceiptLine $line): bool => in_array($line->id, $lines, true),
            ));
            $left = array_values(array_filter(
                $meant,
                static fn (ReceiptLine $line): bool => !isset($before[$line->id]),
            ));
            if ([] === $meant) {
                throw new Refused('Tick the lines that are taken back.');
            }

            return [] === $left ? $before[$meant[0]->id] : $this->undo($receipt, $left, $why, $by);
        });
    }

    /** @param non-empty-list<ReceiptLine> $lines */
    private function undo(Receipt $receipt, array $lines, string $why, Person $by): Receipt
    {
        $orders = [];
        foreach ($lines as $line) {
            $orders[$line->line->order->id] = $line->line->order;
        }
        ksort($orders);
        foreach (array_keys($orders) as $id) {
            $this->orders->lock($id);
        }
        foreach ($lines as $line) {
            $this->entities->refresh($line->line);
        }
        $this->mustBeUntouched($receipt, $lines);
        $this->lockItems($receipt->lines());
        // What is expected goes with what it is expected of; what stays bears its part anew, below.
        $this->expect->no($receipt, 'taken back with '.$receipt->number, $by);
        $now = $this->clock->now();
        $back = new Receipt(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::RECEIPTS, $now),
            $receipt->delivery,
            $by,
            $now->setTime(0, 0),
            $now,
            AverageCosts::BACK.'receipt-'.$receipt->id.'/'.$lines[0]->id,
            $receipt,
            mb_substr($why, 0, 200),
        );
        $this->entities->persist($back);
        $postings = [];
        foreach ($lines as $line) {
            ReceiptLine::takingBack($back, $line);
            if (null !== $line->line->item) {
                $postings[] = $this->posting($back, $line, $line->line->item, $postings);
            }
            $this->serials->forget($line);
            $line->line->comesAgain($line->packs);
            $this->expectTheRest($line);
        }
        $this->entities->flush();
        $this->ledger->enter($postings, $by->id);
        foreach ($lines as $line) {
            $average = null === $line->line->item ? null : $this->averages->of($line->line->item->id);
            if (null !== $average) {
                $line->line->item?->averageNow($average);
            }
        }
        $this->expect->with($receipt, $by);
        $words = sprintf('%s taken back by %s: %s', $receipt->number, $back->number, $why);
        foreach ($orders as $order) {
            $this->audit->note($by, $order->number, $words);
        }
        $this->audit->note($by, $receipt->number, $words);

        return $back;
    }

    /**
     * @param list<ReceiptLine> $lines
     *
     * @throws Refused if some of it went back, is on an invoice, or went on by its number
     */
    private function mustBeUntouched(Receipt $receipt, array $lines): void
    {
        $charges = array_filter($this->charges->of($receipt), static fn (LandedCharge $one): bool => !$one->isExpected);
        $charge = reset($charges);
        if (false !== $charge) {
            throw new Refused(
                sprintf('%s bears a share of %s; take that back first.', $receipt->number, $charge->number),
            );
        }
        $sent = $this->returns->packsOf($receipt);
        $uncharged = $this->invoices->received(
            array_map(static fn (ReceiptLine $line): int => $line->line->id, $lines),
        );
        foreach ($lines as $line) {
            $name = $line->line->item->code ?? $line->line->description;
            if (isset($sent[$line->id])) {
                throw new Refused(sprintf(
                    '%s: %s of it go back to the supplier; give that up first.',
                    $name,
                    $sent[$line->id]->strippedOfTrailingZeros(),
                ));
            }
            if ($line->line->isConsigned() && $line->packs->isGreaterThan($line->line->stillTheirs())) {
                throw new Refused(sprintf('%s was on consignment; some of it is ours by now.', $name));
            }
            $order = $line->line->id;
            $uncharged[$order] = $uncharged[$order]->plus($line->line->stillTheirs())->minus($line->packs);
            if ($uncharged[$order]->isNegative()) {
                throw new Refused(sprintf(
                    '%s is on an invoice already; ask for a credit note, or send it back.',
                    $name,
                ));
            }
            $gone = $this->serials->letGoWith($line);
            if (null !== $gone) {
                throw new Refused(sprintf('%s: number %s has gone to %s.', $name, $gone->number, $gone->goneTo()));
            }
        }
    }

    /** @param list<ReceiptLine> $lines */
    private function lockItems(array $lines): void
    {
        $items = [];
        foreach ($lines as $line) {
            if (null !== $line->line->item) {
                $items[$line->line->item->id] = $line->line->item;
            }
        }
        ksort($items);
        foreach ($items as $item) {
            $this->entities->lock($item, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($item);
        }
    }

    /**
     * @param list<Posting> $before of the lines before
     *
     * @throws Refused
     */
    private function posting(Receipt $back, ReceiptLine $line, Item $item, array $before): Posting
    {
        $units = $line->line->pack()->toStockUnits($line->packs);
        $place = $this->placeOf($line, $item, $units, $before);
        $cost = $item->averageCost();
        if (null !== $cost) {
            $held = BigDecimal::sum(
                BigDecimal::zero(),
                ...array_column($this->balances->lockedOf($item->id), 'quantity'),
                ...self::moved($before, $item),
            );
            $item->averageNow(AverageCost::without($held, $cost, $units, $line->unitCost));
        }

        return new Posting(
            $item->id,
            $place->site->id,
            MovementKind::ReceiptBack,
            $units->negated(),
            $line->unitCost,
            $back->day,
            $back->number,
            AverageCosts::BACK.$this->keyOf($line, $item, $units, $before),
            $line->lot,
            $place->state,
        );
    }

    /**
     * @param list<Posting> $postings
     *
     * @return list<BigDecimal> stock units of an item that they move, below zero, perhaps from one state of a lot only
     */
    private static function moved(
        array $postings,
        Item $item,
        ?StockState $state = null,
        string $lot = '',
    ): array {
        return array_values(array_map(
            static fn (Posting $posting): BigDecimal => $posting->quantity,
            array_filter($postings, static fn (Posting $posting): bool => $posting->item === $item->id
                && (null === $state || ($posting->state === $state && $posting->lot === $lot))),
        ));
    }

    /**
     * @param list<Posting> $before
     *
     * @throws Refused if so much of it no longer stands together where it was booked in
     */
    private function placeOf(ReceiptLine $line, Item $item, BigDecimal $units, array $before): StockPlace
    {
        $most = BigDecimal::zero();
        foreach (StockState::cases() as $state) {
            $place = new StockPlace($line->receipt->delivery->site, $state, $line->lot);
            $stands = BigDecimal::sum(
                $this->balances->lockedAt($item->id, $place),
                ...self::moved($before, $item, $state, $line->lot),
            );
            if ($stands->isGreaterThanOrEqualTo($units)) {
                return $place;
            }
            $most = BigDecimal::max($most, $stands);
        }
        throw new Refused(sprintf(
            '%s: %s came and %s still stand at %s; what went on cannot be taken back.',
            $item->code,
            $units->strippedOfTrailingZeros(),
            $most->strippedOfTrailingZeros(),
            $line->receipt->delivery->site->name(),
        ));
    }

    /**
     * The key of the movement that booked it in.
     *
     * @param list<Posting> $before
     */
    private function keyOf(ReceiptLine $line, Item $item, BigDecimal $units, array $before): string
    {
        $connection = $this->entities->getConnection();
        /** @var list<string> $keys */
        $keys = $connection->fetchFirstColumn(
            "SELECT idempotency_key FROM stock_movement WHERE kind = 'receipt' AND reference = ? AND item_id = ?
             AND lot = ? AND quantity = ? AND idempotency_key IS NOT NULL ORDER BY id",
            [$line->receipt->number, $item->id, $line->lot, (string) $units],
        );
        $used = array_map(static fn (Posting $posting): ?string => $posting->idempotencyKey, $before);
        foreach ($keys as $key) {
            $taken = in_array(AverageCosts::BACK.$key, $used, true) || false !== $connection->fetchOne(
                'SELECT 1 FROM stock_movement WHERE idempotency_key = ?',
                [AverageCosts::BACK.$key],
            );
            if (!$taken) {
                return $key;
            }
        }

        return 'line-'.$line->id;
    }

    /** Where the rest was given up when it was booked in, it is expected again as well. */
    private function expectTheRest(ReceiptLine $line): void
    {
        foreach ($line->receipt->delivery->lines() as $counted) {
            if ($counted instanceof DeliveryLine && $counted->line === $line->line && $counted->closesShort()) {
                $line->line->reopen();
            }
        }
    }
}
