<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\SupplierReturnLine;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * Goods go back to a supplier: asked for, agreed, sent, settled. Stock leaves when they leave, at the cost with which
 * they came; what is to be sent once more is expected on its order again.
 */
final readonly class SendBack
{
    public function __construct(
        private EntityManagerInterface $entities,
        private SupplierReturns $returns,
        private Invoices $invoices,
        private Orders $orders,
        private Balances $balances,
        private Ledger $ledger,
        private PutStockRight $right,
        private ReturnLetter $letter,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, BigDecimal> $packs    by line of the receipt
     * @param Problems               $problems takes what stands in the way, by line; nothing is saved then
     * @param string                 $key      of the form: asked twice, it is begun once
     *
     * @throws Refused without a reason, or if the supplier is to be written to and has no contact
     */
    public function begin(
        Receipt $receipt,
        array $packs,
        StockState $from,
        ReturnWish $wish,
        string $reason,
        string $words,
        bool $write,
        Person $by,
        string $key,
        Problems $problems,
    ): ?SupplierReturn {
        $known = $this->returns->byKey($key);
        if (null !== $known) {
            return $known;
        }
        if ('' === trim($reason)) {
            throw new Refused('Say why they go back.');
        }

        return $this->whole->take(function () use (
            $receipt, $packs, $from, $wish, $reason, $words, $write, $by, $key, $problems,
        ): ?SupplierReturn {
            // Two people who send back from one receipt take turns.
            $this->entities->lock($receipt, LockMode::PESSIMISTIC_WRITE);
            $wanted = $this->wanted($receipt, $packs, $from, $problems);
            if ([] === $wanted && $problems->areNone()) {
                $problems->refuse('back', 'Say of which line how many go back.');
            }
            if (!$problems->areNone()) {
                return null;
            }
            $now = $this->clock->now();
            $back = new SupplierReturn(
                NumberSeries::take($this->entities->getConnection(), NumberSeries::RETURNS, $now),
                $receipt, $from, $wish, $reason, $words, $by, $now, $key,
            );
            foreach ($wanted as [$line, $many]) {
                new SupplierReturnLine($back, $line, $many);
            }
            $this->entities->persist($back);
            $this->audit->note($by, $receipt->number, sprintf('%s begun: %s', $back->number, $reason));
            if ($write) {
                $this->letter->ask($back, $by);
            }

            return $back;
        });
    }

    /**
     * @param array<int, BigDecimal> $packs by line of the receipt
     *
     * @return list<array{ReceiptLine, BigDecimal}>
     */
    private function wanted(Receipt $receipt, array $packs, StockState $from, Problems $problems): array
    {
        $before = $this->returns->packsOf($receipt);
        $wanted = [];
        foreach ($receipt->lines() as $line) {
            $many = $packs[$line->id] ?? BigDecimal::zero();
            if ($many->isZero()) {
                continue;
            }
            $left = $line->packs->minus($before[$line->id] ?? 0);
            $units = $line->line->pack()->toStockUnits($many);
            $item = $line->line->item;
            $stands = null === $item ? $units : $this->balances->lockedAt(
                $item->id,
                new StockPlace($receipt->delivery->site, $from, $line->lot),
            );
            if ($many->isNegative() || $many->isGreaterThan($left)) {
                $problems->refuse('back-'.$line->id, sprintf(
                    '%s cannot go back: %s came, of which %s may still go.',
                    $many,
                    $line->packs->strippedOfTrailingZeros(),
                    $left->strippedOfTrailingZeros(),
                ));
            } elseif ($stands->isLessThan($units)) {
                $problems->refuse('back-'.$line->id, sprintf(
                    '%s are needed and %s stand there %s.',
                    $units->strippedOfTrailingZeros(),
                    $stands->strippedOfTrailingZeros(),
                    $from->words(),
                ));
            } else {
                $wanted[] = [$line, $many];
            }
        }

        return $wanted;
    }

    /** @throws Refused once they have left */
    public function agree(SupplierReturn $back, string $theirNumber, Person $by): void
    {
        $this->whole->take(function () use ($back, $theirNumber, $by): void {
            $this->lock($back);
            $back->agree($theirNumber);
            $words = sprintf('%s agreed, %s', $back->number, $theirNumber ?: '–');
            $this->audit->note($by, $back->receipt->number, $words);
        });
    }

    /** @throws Refused once they have left */
    public function drop(SupplierReturn $back, Person $by): void
    {
        $this->whole->take(function () use ($back, $by): void {
            $this->lock($back);
            $back->drop();
            $this->audit->note($by, $back->receipt->number, $back->number.' given up');
        });
    }

    /**
     * They leave: stock, cost, and where they come again the order, move along.
     *
     * @throws Refused if they have left already, or no longer stand there
     */
    public function send(SupplierReturn $back, bool $write, Person $by): void
    {
        $this->whole->take(function () use ($back, $write, $by): void {
            $this->lock($back);
            $today = $this->clock->now()->setTime(0, 0);
            $back->leave($today);
            $postings = [];
            foreach ($back->lines() as $n => $line) {
                $item = $line->came->line->item;
                if (null !== $item) {
                    $postings[] = $this->posting($back, $line, $item, $today, $n);
                }
                $this->moveOrder($back, $line);
            }
            $this->entities->flush();
            $this->ledger->enter($postings, $by->id);
            $this->audit->note($by, $back->receipt->number, $back->number.' sent back');
            if ($write) {
                $this->letter->onTheWay($back, $by);
            }
        });
    }

    private function posting(
        SupplierReturn $back,
        SupplierReturnLine $line,
        Item $item,
        \DateTimeImmutable $today,
        int $n,
    ): Posting {
        $this->entities->lock($item, LockMode::PESSIMISTIC_WRITE);
        $this->entities->refresh($item);
        $units = $line->units();
        $place = new StockPlace($back->receipt->delivery->site, $back->standsIn, $line->came->lot);
        $stands = $this->balances->lockedAt($item->id, $place);
        if ($stands->isLessThan($units)) {
            throw new Refused(sprintf(
                '%s: %s stand at %s, not %s.',
                $item->code,
                $stands->strippedOfTrailingZeros(),
                $place->words(),
                $units->strippedOfTrailingZeros(),
            ));
        }
        $held = BigDecimal::sum(BigDecimal::zero(), ...array_column($this->balances->lockedOf($item->id), 'quantity'));
        $cost = $item->averageCost();
        if (null !== $cost) {
            $item->averageNow(AverageCost::without($held, $cost, $units, $line->came->unitCost));
        }

        return new Posting(
            $item->id,
            $back->receipt->delivery->site->id,
            MovementKind::Returned,
            $units->negated(),
            $line->came->unitCost,
            $today,
            $back->number,
            'return-'.$back->id.'/'.$n,
            $line->came->lot,
            $back->standsIn,
        );
    }

    private function moveOrder(SupplierReturn $back, SupplierReturnLine $line): void
    {
        $order = $line->came->line->order;
        $this->orders->lock($order->id);
        $this->entities->refresh($line->came->line);
        $theirs = $line->came->line->stillTheirs();
        $isTheirs = $theirs->isGreaterThanOrEqualTo($line->packs);
        // What is owed for, and what never was, are not one line of a return.
        if (!$isTheirs && $theirs->isPositive()) {
            throw new Refused(sprintf(
                '%s of %s are theirs yet, on consignment, the rest is ours: send back each by itself.',
                $theirs->strippedOfTrailingZeros(),
                $line->came->line->description,
            ));
        }
        if ($isTheirs) {
            $line->wasTheirs();
        }
        if (ReturnWish::Replacement === $back->wish) {
            $line->came->line->comesAgain($line->packs);
        } elseif ($isTheirs) {
            $line->came->line->takeOver($line->packs);
            $line->goesUncharged();
        } elseif ($this->isUncharged($line)) {
            $line->goesUncharged();
        }
    }

    /** Whether so much of it is on no invoice yet. */
    private function isUncharged(SupplierReturnLine $line): bool
    {
        $order = $line->came->line->id;

        return $this->invoices->received([$order])[$order]->isGreaterThanOrEqualTo($line->packs);
    }

    /** @throws Refused unless they have left */
    public function settle(SupplierReturn $back, string $with, Person $by): void
    {
        $this->whole->take(function () use ($back, $with, $by): void {
            $this->lock($back);
            if (ReturnWish::Replacement !== $back->wish && '' === trim($with)) {
                throw new Refused('Which credit note makes it good?');
            }
            $back->settle($with, $this->clock->now()->setTime(0, 0));
            if (!$back->wish->goesBack()) {
                $this->setFree($back, $by);
            }
            $words = sprintf('%s settled, %s', $back->number, $with ?: 'replaced');
            $this->audit->note($by, $back->receipt->number, $words);
        });
    }

    /** What was held back until a lower price was agreed may be sold. */
    private function setFree(SupplierReturn $back, Person $by): void
    {
        foreach ($back->lines() as $n => $line) {
            $item = $line->came->line->item;
            if (null !== $item && StockState::Available !== $back->standsIn) {
                $this->right->become(
                    $item,
                    new StockPlace($back->receipt->delivery->site, $back->standsIn, $line->came->lot),
                    StockState::Available,
                    $line->units(),
                    $back->number.', kept for less',
                    $by,
                    sprintf('kept-%d-%d', $back->id, $n),
                );
            }
        }
    }

    private function lock(SupplierReturn $back): void
    {
        $this->entities->getConnection()->fetchOne(
            'SELECT id FROM supplier_return WHERE id = ? FOR UPDATE',
            [$back->id],
        );
        $this->entities->lock($back, LockMode::OPTIMISTIC, $back->version());
    }
}
