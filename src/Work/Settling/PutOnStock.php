<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedChargeLine;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\CostLeft;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;

/** Puts shares of a charge on what is there, and takes what is left of them off; in the caller's transaction. */
final readonly class PutOnStock
{
    public function __construct(
        private EntityManagerInterface $entities,
        private CostLeft $left,
        private Balances $balances,
        private Ledger $ledger,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Nobody else moves them until all is saved.
     *
     * @param list<Item> $items
     */
    public function lock(array $items): void
    {
        usort($items, static fn (Item $a, Item $b): int => $a->id <=> $b->id);
        foreach ($items as $item) {
            $this->entities->lock($item, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($item);
            $this->balances->lockedOf($item->id);
        }
    }

    /** @param list<LandedShare> $shares */
    public function put(LandedCharge $charge, array $shares): void
    {
        $this->entities->persist($charge);
        $postings = [];
        foreach ($shares as $n => $share) {
            new LandedChargeLine($charge, $share->line, $share->share->amount, $share->toStock()->amount);
            $postings[] = $this->raises($charge->number, $share->line, $share->item, $share->more(), 'c'.$n);
        }
        $this->entities->flush();
        $this->ledger->enter($postings, $charge->by->id);
    }

    /**
     * Of what went into stock, some has been sold since: that stays cost of sales of then.
     *
     * @throws Refused if it was taken back already, or nothing says why
     */
    public function takeOff(LandedCharge $charge, string $why, int $by): void
    {
        $charge->takeBack($why, $this->clock->now());
        $postings = [];
        foreach ($charge->lines() as $n => $line) {
            $item = $line->came->line->item;
            if (null !== $item) {
                $less = $this->leftOf($charge, $line, $item)->more()->negated();
                $postings[] = $this->raises($charge->number, $line->came, $item, $less, 'b'.$n);
            }
        }
        $this->entities->flush();
        $this->ledger->enter($postings, $by);
    }

    /** What of a share is still in stock. */
    public function leftOf(LandedCharge $charge, LandedChargeLine $line, Item $item): LandedShare
    {
        $left = $this->left->ofCharge($charge->number, $item, $line->came->lot);
        $toStock = Money::of($line->toStock, $this->business->get()->currency);

        return new LandedShare(
            $line->came,
            $item,
            BigDecimal::zero(),
            BigDecimal::zero(),
            $toStock,
            $left->part,
            $left->held,
        );
    }

    /** What is there of an item costs more from now on, or less. */
    private function raises(string $number, ReceiptLine $line, Item $item, BigDecimal $more, string $part): Posting
    {
        $cost = $item->averageCost();
        if (null !== $cost) {
            $item->averageNow($cost->plus($more));
        }

        return new Posting(
            $item->id,
            $line->receipt->delivery->site->id,
            MovementKind::Charge,
            BigDecimal::zero(),
            $more,
            $this->clock->now()->setTime(0, 0),
            $number,
            'charge-'.$number.'-'.$part,
            $line->lot,
        );
    }
}
