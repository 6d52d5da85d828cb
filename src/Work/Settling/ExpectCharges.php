<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\ExpectedCharges;
use TallBarrel\Core\Settling\Spread;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Supplier\Supplier;

/**
 * Puts on goods what freight, other charges, duty and handling are expected to cost, as they come; until the bill comes
 * and takes the place of it. In the transaction of whoever books the goods in.
 */
final readonly class ExpectCharges
{
    public function __construct(
        private EntityManagerInterface $entities,
        private LandedCharges $charges,
        private Receipts $receipts,
        private Balances $balances,
        private Rates $rates,
        private CurrentBusiness $business,
        private PutOnStock $stock,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<LandedCharge> what is expected with what stays of a receipt */
    public function with(Receipt $receipt, Person $by): array
    {
        if (!$this->business->get()->expectsCharges()) {
            return [];
        }
        $lines = $this->lines($receipt);
        $orders = [];
        foreach ($lines as $id => [$line]) {
            $orders[$line->line->order->id][$id] = $line;
        }
        $expected = [];
        foreach ($orders as $came) {
            $order = reset($came)->line->order;
            foreach ($this->ofOrder($order, $came) as $kind => $shares) {
                $kind = ChargeKind::from($kind);
                $supplier = ChargeKind::Duty === $kind ? null : $order->supplier;
                $expected[] = $this->expect($receipt, $kind, $supplier, $shares, $lines, $by);
            }
        }
        $handling = array_filter(
            ExpectedCharges::handling(
                array_map(fn (array $one): Money => $this->value($one[0]), $lines),
                $this->business->get()->handlingPercent(),
                Money::of($this->business->get()->handlingAmount(), $this->business->get()->currency),
            ),
            static fn (Money $share): bool => !$share->isZero(),
        );
        if ([] !== $handling) {
            $expected[] = $this->expect($receipt, ChargeKind::Handling, null, $handling, $lines, $by);
        }

        return $expected;
    }

    /** What was expected is taken off what is there. */
    public function no(Receipt $receipt, string $why, Person $by): void
    {
        foreach ($this->charges->of($receipt) as $charge) {
            if ($charge->isExpected) {
                $this->stock->takeOff($charge, $why, $by->id);
            }
        }
    }

    /**
     * @param array<int, ReceiptLine> $came of the order
     *
     * @return array<string, array<int, Money>>
     */
    private function ofOrder(PurchaseOrder $order, array $came): array
    {
        $rate = $this->rate($order);
        $home = static fn (Money $foreign): Money => $rate->toHome($foreign)->rounded();

        return ExpectedCharges::ofOrder(
            array_map(fn (ReceiptLine $line): array => [
                'value' => $this->value($line),
                'dutyPercent' => $order->dutyPercent($line->line),
            ], $came),
            $home($order->goods()),
            $home($order->expectedFreight()),
            $home($order->otherCharges()),
        );
    }

    private function rate(PurchaseOrder $order): ExchangeRate
    {
        return $this->rates->on($order->currency, $this->clock->now());
    }

    /** At what it was booked in, home currency. */
    private function value(ReceiptLine $line): Money
    {
        $units = $line->line->pack()->toStockUnits($line->packs);

        return Money::of($units->multipliedBy($line->unitCost), $this->business->get()->currency)->rounded();
    }

    /** @return array<int, array{ReceiptLine, Item}> what of it went into stock and stays there, by line */
    private function lines(Receipt $receipt): array
    {
        $back = $this->receipts->takenBack($receipt);
        $lines = [];
        foreach ($receipt->lines() as $line) {
            if (null !== $line->line->item && $line->packs->isPositive() && !isset($back[$line->id])) {
                $lines[$line->id] = [$line, $line->line->item];
            }
        }

        return $lines;
    }

    /**
     * @param array<int, Money>                    $shares home currency, by line
     * @param array<int, array{ReceiptLine, Item}> $lines
     */
    private function expect(
        Receipt $receipt,
        ChargeKind $kind,
        ?Supplier $supplier,
        array $shares,
        array $lines,
        Person $by,
    ): LandedCharge {
        $currency = $this->business->get()->currency;
        $now = $this->clock->now();
        $reckoned = Money::sum($currency, array_values($shares))->rounded();
        $expected = null === $supplier ? $reckoned : ExpectedCharges::corrected(
            $reckoned,
            ...$this->charges->experience($supplier, $kind, $now->modify('-1 year')),
        );
        if (!$expected->amount->isEqualTo($reckoned->amount)) {
            $shares = Spread::over($expected, array_map(static fn (Money $one): BigDecimal => $one->amount, $shares));
        }
        $sum = $expected->amount;
        $number = NumberSeries::take($this->entities->getConnection(), NumberSeries::CHARGES, $now);
        $charge = new LandedCharge($number, $kind, $supplier, '', $sum, $currency, $sum, SpreadBasis::Value, $by, $now,
            sprintf('expected-%d-%s', $receipt->id, $number), true, $reckoned->amount);
        $held = $this->balances->lockedSums(
            array_map(static fn (array $one): int => $one[1]->id, array_values($lines)),
        );
        $landed = [];
        foreach ($shares as $id => $share) {
            [$line, $item] = $lines[$id];
            $there = $held[$item->id] ?? BigDecimal::zero();
            $landed[] = new LandedShare(
                $line,
                $item,
                $line->line->pack()->toStockUnits($line->packs),
                $this->value($line)->amount,
                $share,
                $there->isPositive() ? BigDecimal::one() : BigDecimal::zero(),
                $there,
            );
        }
        $this->stock->put($charge, $landed);

        return $charge;
    }
}
