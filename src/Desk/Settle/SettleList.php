<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\InvoiceRow;
use TallBarrel\Store\Settle\InvoiceRows;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Settle\Uninvoiced;

/** What is to be settled: invoices that differ, those that agree, and what came without one. */
final readonly class SettleList
{
    /** Of each kind, as many stand on the side; the rest is a page away. */
    private const SHOWN = 12;
    private const RECEIVED_SHOWN = 30;

    /**
     * @param list<InvoiceRow> $differs  somebody has to decide
     * @param list<InvoiceRow> $agrees   may be settled
     * @param list<Uninvoiced> $received and on no invoice
     * @param list<LandedCharge> $expected charges that nobody billed yet
     * @param list<PurchaseOrder> $deposits orders with one agreed that nobody asked for yet
     * @param bool $whole whether all that was received is shown, however much it is
     */
    private function __construct(
        public array $differs,
        public array $agrees,
        public array $received,
        public array $expected,
        public array $deposits,
        private bool $whole,
    ) {
    }

    public static function of(
        InvoiceRows $rows,
        Invoices $invoices,
        LandedCharges $charges,
        Deposits $deposits,
        bool $whole,
    ): self {
        $entered = $rows->entered();
        $differs = array_filter($entered, static fn (InvoiceRow $one): bool => $one->undecided > 0);
        $agrees = array_filter($entered, static fn (InvoiceRow $one): bool => 0 === $one->undecided);

        return new self(
            array_values($differs),
            array_values($agrees),
            $invoices->uninvoiced(),
            $charges->expected(self::SHOWN),
            $deposits->due(self::SHOWN),
            $whole,
        );
    }

    /** @return list<Uninvoiced> of what was received, those that are shown */
    public function shown(): array
    {
        return $this->whole ? $this->received : array_slice($this->received, 0, self::RECEIVED_SHOWN);
    }

    public function first(): ?InvoiceRow
    {
        return $this->differs[0] ?? $this->agrees[0] ?? null;
    }
}
