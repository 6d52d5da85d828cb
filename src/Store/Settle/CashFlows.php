<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Settling\CashFlow;
use TallBarrel\Core\Settling\CashKind;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Supplier\AgreedTerms;

/** All that will have to be paid: on invoices, for what came without one and its freight, for what is ordered. */
final readonly class CashFlows
{
    public function __construct(
        private Connection $connection,
        private Invoices $invoices,
        private CreditNotes $credits,
        private Deposits $deposits,
        private LandedCharges $charges,
        private Rates $rates,
        private CurrentBusiness $business,
    ) {
    }

    /**
     * @param array<string, \DateTimeImmutable> $moved days on which orders come instead, by their number
     *
     * @return list<CashFlow>
     */
    public function from(\DateTimeImmutable $today, array $moved = []): array
    {
        $rates = $this->rates->allOn($today);

        return [
            ...$this->invoiced($today, $rates),
            ...$this->received($today, $rates),
            ...$this->expected($today),
            ...$this->ordered($today, $moved),
        ];
    }

    /**
     * @param array<string, ExchangeRate> $rates
     *
     * @return list<CashFlow>
     */
    private function invoiced(\DateTimeImmutable $today, array $rates): array
    {
        $yearly = $this->business->get()->moneyPercent()->toFloat();
        $flows = [];
        foreach ([InvoiceState::Settled, InvoiceState::Entered] as $state) {
            foreach ($this->invoices->in($state, \PHP_INT_MAX) as $invoice) {
                foreach ($invoice->payable()->best($today, $yearly) as $payment) {
                    $flows[] = $this->flow($payment->day, $payment->amount, $rates, CashKind::Invoiced,
                        $invoice->number, $invoice->supplier->name());
                }
            }
        }
        foreach ($this->credits->open() as $credit) {
            $flows[] = $this->flow($today, Money::zero($credit->currency)->minus($credit->due()), $rates,
                CashKind::Invoiced, $credit->number, $credit->supplier->name());
        }

        return $flows;
    }

    /**
     * With the tax of the supplier; the invoice is taken to be of the day it came.
     *
     * @param array<string, ExchangeRate> $rates
     *
     * @return list<CashFlow>
     */
    private function received(\DateTimeImmutable $today, array $rates): array
    {
        /** @var array<string, array{tax: string, net_days: int|null, discount_percent: string, discount_days: int,
         *      end_of_month: int, deposit_percent: string, instalments: string}> $terms */
        $terms = $this->connection->fetchAllAssociativeIndexed(
            'SELECT s.code, CAST(s.tax_percent AS CHAR) tax, '.AgreedTerms::COLUMNS.' FROM supplier s',
        );
        $holders = $this->deposits->holders();
        $flows = [];
        foreach ($this->invoices->uninvoiced() as $one) {
            $row = array_values($terms[$one->supplierCode] ?? ['0', null, '0', 0, 0, '0', '']);
            $tax = BigDecimal::of((string) array_shift($row));
            $net = Money::of(BigDecimal::of(number_format($one->value, 2, '.', '')), $one->currency);
            $total = $net->plus($net->percent($tax))->rounded();
            /** @var array{int|null, string, int, int, string, string} $row */
            array_push($flows, ...$this->byTerms($row, $total, $one->day, $one->day, $today, $rates, CashKind::Received,
                $one->receipt, $one->supplier, isset($holders[$one->supplierCode])));
        }

        return $flows;
    }

    /**
     * Freight and the like that is on goods and not billed yet, by the terms of whoever it is expected of; at once
     * where that is nobody of ours.
     *
     * @return list<CashFlow>
     */
    private function expected(\DateTimeImmutable $today): array
    {
        $flows = [];
        foreach ($this->charges->expected() as $charge) {
            $came = $charge->lines()[0]->came->receipt->day;
            $due = $charge->supplier?->terms()?->dueOn($came) ?? $came;
            $of = $charge->supplier?->name() ?? 'customs';
            $flows[] = new CashFlow(max($due, $today), $charge->money(), CashKind::Received, $charge->number, $of);
        }

        return $flows;
    }

    /**
     * @param array<string, \DateTimeImmutable> $moved
     *
     * @return list<CashFlow>
     */
    private function ordered(\DateTimeImmutable $today, array $moved): array
    {
        /** @var list<array{number: string, due: string, sent: string, supplier: string, value: string, terms: string,
         *      asked: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT o.number, l.due, DATE(o.sent_at) sent, s.name supplier,
                ROUND(SUM(l.home_value * (1 + o.tax_percent / 100)), 2) value,
                CONVERT(JSON_ARRAY('.AgreedTerms::COLUMNS.') USING utf8mb4) terms,
                EXISTS (SELECT 1 FROM invoice_line d WHERE d.deposit_id = o.id) asked
             FROM open_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             GROUP BY o.id, o.number, l.due, o.sent_at, s.name, terms ORDER BY l.due, o.id',
        );
        $home = $this->business->get()->currency;
        $flows = [];
        foreach ($rows as $row) {
            /** @var array{int|null, string, int, int|bool, string, string} $terms */
            $terms = json_decode($row['terms'], true, 4, \JSON_THROW_ON_ERROR);
            $due = $moved[$row['number']] ?? new \DateTimeImmutable($row['due'], $today->getTimezone());
            array_push($flows, ...$this->byTerms(
                $terms,
                Money::of($row['value'], $home),
                new \DateTimeImmutable($row['sent'], $today->getTimezone()),
                max($due, $today->setTime(0, 0)),
                $today,
                [],
                CashKind::Ordered,
                $row['number'],
                $row['supplier'],
                1 === $row['asked'],
            ));
        }

        return $flows;
    }

    /**
     * A deposit whose day is over was paid when it was ordered, and one that has its own invoice is on that.
     *
     * @param array{int|null, string, int, int|bool, string, string} $terms
     * @param array<string, ExchangeRate>                            $rates
     *
     * @return list<CashFlow>
     */
    private function byTerms(
        array $terms,
        Money $total,
        \DateTimeImmutable $ordered,
        \DateTimeImmutable $invoiced,
        \DateTimeImmutable $today,
        array $rates,
        CashKind $kind,
        string $of,
        string $supplier,
        bool $hasDeposit,
    ): array {
        $agreed = AgreedTerms::read($terms) ?? PaymentTerms::net(0);
        $yearly = $this->business->get()->moneyPercent()->toFloat();
        $flows = [];
        foreach ($agreed->payments($total, $ordered, $invoiced, $yearly) as $n => $payment) {
            $isDeposit = 0 === $n && !$agreed->depositPercent->isZero();
            $isPast = CashKind::Ordered === $kind && $payment->day < $today->setTime(0, 0);
            if (!$isPast && !($isDeposit && $hasDeposit)) {
                $flows[] = $this->flow($payment->day, $payment->amount, $rates, $kind, $of, $supplier);
            }
        }

        return $flows;
    }

    /** @param array<string, ExchangeRate> $rates what is in none of them is in the home currency */
    private function flow(
        \DateTimeImmutable $day,
        Money $amount,
        array $rates,
        CashKind $kind,
        string $of,
        string $supplier,
    ): CashFlow {
        $rate = $rates[$amount->currency->code] ?? null;

        $home = null === $rate ? $amount : $rate->toHome($amount);

        return new CashFlow($day, $home->rounded(), $kind, $of, $supplier);
    }
}
