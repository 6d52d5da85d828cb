<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Receiving\Count;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\Lots;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Serial;
use TallBarrel\Store\Stock\Serials;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Settling\ExpectCharges;

/**
 * Books a counted delivery into stock: receipt, movements, balances, average cost and order states in one transaction.
 */
final readonly class BookDelivery
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Receipts $receipts,
        private Orders $orders,
        private Ledger $ledger,
        private Lots $lots,
        private Serials $serials,
        private Rates $rates,
        private AskForStock $ask,
        private Balances $balances,
        private ExpectCharges $expect,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Called again for the same delivery, it answers with the receipt that exists and books nothing.
     *
     * @throws Refused if nothing is counted, a count is beyond tolerance, or a lot is missing
     */
    public function book(int $delivery, Person $person): Receipt
    {
        return $this->entities->wrapInTransaction(function () use ($delivery, $person): Receipt {
            $delivery =
                $this->entities->find(Delivery::class, $delivery, LockMode::PESSIMISTIC_WRITE) ??
                throw new Refused('There is no such delivery.');
            $existing = $this->receipts->of($delivery);
            if (null !== $existing) {
                return $existing;
            }
            $orders = $delivery->orders();
            usort($orders, static fn (PurchaseOrder $a, PurchaseOrder $b): int => $a->id <=> $b->id);
            foreach ($orders as $order) {
                $this->orders->lock($order->id);
            }
            $this->asTheyAreNow($delivery);
            $counted = $this->countedLines($delivery);
            self::mustBeMeasured($delivery, $counted);
            $receipt = $this->receipt($delivery, $counted, $person);
            foreach ($orders as $order) {
                $order->settleState();
                $this->audit->note(
                    $person,
                    $order->number,
                    sprintf('Booked in as %s, delivery note %s', $receipt->number, $delivery->noteNumber),
                );
            }
            $delivery->booked($this->clock->now());

            return $receipt;
        });
    }

    /**
     * Other deliveries of the same orders, or of the same items, may have been booked since this one was looked at:
     * what is changed is read as it is now, and nobody else changes it meanwhile. Always in the same order, so that two
     * never wait for each other.
     */
    private function asTheyAreNow(Delivery $delivery): void
    {
        $lines = $items = [];
        foreach ($delivery->lines() as $line) {
            $lines[$line->line->id] = $line->line;
            if (null !== $line->line->item) {
                $items[$line->line->item->id] = $line->line->item;
            }
        }
        foreach ([$lines, $items] as $kind) {
            ksort($kind);
            foreach ($kind as $one) {
                // One that was not loaded yet would be loaded later, as it was when all this began.
                $this->entities->initializeObject($one);
                $this->entities->refresh($one, LockMode::PESSIMISTIC_WRITE);
            }
        }
    }

    /**
     * @param list<DeliveryLine> $counted
     *
     * @throws Refused if something of it is measured when it comes, and was not
     */
    private static function mustBeMeasured(Delivery $delivery, array $counted): void
    {
        foreach ($counted as $line) {
            $item = $line->line->item;
            if (true === $item?->isMeasured() && null === $delivery->came()->temperature()) {
                throw new Refused(
                    sprintf('%s: how cold is it? Note the temperature under How it came.', $item->code),
                );
            }
        }
    }

    /** @return non-empty-list<DeliveryLine> */
    private function countedLines(Delivery $delivery): array
    {
        $counted = [];
        foreach ($delivery->lines() as $line) {
            $name = $line->line->item->code ?? $line->line->description;
            $finding = $line->finding();
            if (CountFinding::TooMuch === $finding->finding) {
                throw new Refused(
                    sprintf(
                        '%s: %s counted, %s on order; more than %s is not taken in. Set the rest aside and count '
                        .'what you keep.',
                        $name,
                        $finding->counted ?? 0,
                        $finding->outstanding->strippedOfTrailingZeros(),
                        Count::most($finding->outstanding)->strippedOfTrailingZeros(),
                    ),
                );
            }
            if (CountFinding::NotCounted === $finding->finding) {
                continue;
            }
            if (null !== $line->line->item && true === $line->counted()?->isPositive()) {
                $this->mustBeKnownByNumber($line->line->item, $line, $line->counted());
            }
            $counted[] = $line;
        }

        return [] !== $counted ? $counted : throw new Refused('Nothing has been counted yet.');
    }

    /** @throws Refused if its lot, what is asked of it, or the numbers of its pieces are missing */
    private function mustBeKnownByNumber(Item $item, DeliveryLine $line, BigDecimal $packs): void
    {
        if ($item->isLotTracked() && '' === $line->lot()) {
            throw new Refused(sprintf('%s needs its lot number before it can be booked in.', $item->code));
        }
        if (
            $item->isLotTracked()
            && null === $line->expiresOn()
            && $item->lotDetails()->areNeeded($this->lots->isKnown($item->id, $line->lot()))
        ) {
            throw new Refused(
                sprintf('%s: until when may lot %s be used? It has not come before.', $item->code, $line->lot()),
            );
        }
        if (!$item->hasSerials()) {
            return;
        }
        $pieces = $line->line->pack()->toStockUnits($packs);
        if (!$pieces->isEqualTo(count($line->serials()))) {
            throw new Refused(sprintf(
                '%s: %d serial numbers for %s pieces; each piece has one.',
                $item->code,
                count($line->serials()),
                $pieces->strippedOfTrailingZeros(),
            ));
        }
        $known = $this->serials->known($item->id, $line->serials());
        if (null !== $known) {
            throw new Refused(sprintf('%s: serial number %s came before.', $item->code, $known));
        }
    }

    /** What is looked at first, or may no longer be sold, is not there to sell. */
    private function stateOf(Item $item, DeliveryLine $line, \DateTimeImmutable $today): StockState
    {
        return match (true) {
            $line->lotFacts()->isOver($today) => StockState::Held,
            $item->inspection()->isInspected(),
            $line->delivery->supplier->isInspected(),
            true === $line->line->offer?->isInspected() => StockState::InInspection,
            InspectionRule::Dock === $item->inspection() => StockState::AtDock,
            default => StockState::Available,
        };
    }

    /** @param non-empty-list<DeliveryLine> $counted */
    private function receipt(Delivery $delivery, array $counted, Person $person): Receipt
    {
        $now = $this->clock->now();
        $today = $now->setTime(0, 0);
        $receipt = new Receipt(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::RECEIPTS, $now),
            $delivery,
            $person,
            $today,
            $now,
            'delivery-'.$delivery->id,
        );
        $this->entities->persist($receipt);
        $postings = [];
        $items = [];
        foreach ($counted as $line) {
            $items[] = $line->line->item->id ?? 0;
        }
        $held = $this->balances->lockedSums($items);
        foreach ($counted as $position => $line) {
            $line->remember();
            $packs = $line->counted() ?? BigDecimal::zero();
            if ($packs->isPositive()) {
                $order = $line->line;
                $units = $order->pack()->toStockUnits($packs);
                $cost = $this->rates
                    ->on($order->order->currency, $today)
                    ->toHome(Money::of($order->price(), $order->order->currency))
                    ->amount->dividedBy($order->pack()->content, AverageCost::SCALE, RoundingMode::HalfUp);
                $order->receive($packs);
                $came = $this->came($receipt, $line, $packs, $cost);
                if (null !== $order->item) {
                    $item = $order->item;
                    $item->averageNow(
                        AverageCost::after($held[$item->id] ?? BigDecimal::zero(), $item->averageCost(), $units, $cost),
                    );
                    $held[$item->id] = ($held[$item->id] ?? BigDecimal::zero())->plus($units);
                    foreach ($came as $n => [$one, $isBad]) {
                        $postings[] = new Posting(
                            $item->id,
                            $delivery->site->id,
                            MovementKind::Receipt,
                            $order->pack()->toStockUnits($one->packs),
                            $cost,
                            $today,
                            $receipt->number,
                            sprintf('%s/%d%s', $receipt->idempotencyKey, $position + 1, 0 === $n ? '' : '/'.$n),
                            $line->lot(),
                            $isBad ? StockState::Held : $this->stateOf($item, $line, $today),
                        );
                    }
                    $this->lots->know($item->id, $line->lotFacts());
                    foreach ($line->serials() as $number) {
                        $this->entities->persist(new Serial($item, $number, $came[0][0] ?? null));
                    }
                }
                $this->tell($line, $person);
            }
        }
        foreach ($counted as $line) {
            if ($line->closesShort()) {
                $line->line->closeShort();
            }
        }
        $this->entities->flush();
        $this->ledger->enter($postings, $person->id);
        $this->expect->with($receipt, $person);
        $this->sendOn($delivery, $counted, $person);

        return $receipt;
    }

    /**
     * What was unloaded here and ordered for another site is put on the list for the next journey there.
     *
     * @param list<DeliveryLine> $counted
     */
    private function sendOn(Delivery $delivery, array $counted, Person $person): void
    {
        foreach ($counted as $line) {
            $item = $line->line->item;
            $good = $line->counted()?->minus($line->bad()) ?? BigDecimal::zero();
            if (null !== $item && $line->line->site !== $delivery->site && $good->isPositive()) {
                $this->ask->sendOn(
                    $item,
                    $delivery->site,
                    $line->line->site,
                    $line->line->pack()->toStockUnits($good),
                    $person,
                    sprintf('delivery-%d-%d', $delivery->id, $line->id),
                );
            }
        }
    }

    /**
     * What is not good is ours as well, on a line of its own, and waits until somebody decides.
     *
     * @return list<array{ReceiptLine, bool}> each with whether it is not good
     */
    private function came(Receipt $receipt, DeliveryLine $line, BigDecimal $packs, BigDecimal $cost): array
    {
        $came = [];
        foreach ([[$packs->minus($line->bad()), false], [$line->bad(), true]] as [$some, $isBad]) {
            if ($some->isPositive()) {
                $came[] = [new ReceiptLine($receipt, $line->line, $some, $cost, $line->lot()), $isBad];
            }
        }

        return $came;
    }

    private function tell(DeliveryLine $line, Person $person): void
    {
        if ($line->bad()->isPositive()) {
            $words = sprintf(
                '%s %s of %s not good: %s',
                $line->bad()->strippedOfTrailingZeros(),
                $line->line->pack()->named($line->bad()),
                $line->line->item->code ?? $line->line->description,
                $line->badBecause(),
            );
            $this->audit->note($person, $line->line->order->number, $words);
        }
    }
}
