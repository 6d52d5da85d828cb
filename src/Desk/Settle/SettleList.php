<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Settle\Uninvoiced;

/** What is to be settled: invoices that differ, those that agree, and what came without one. */
final readonly class SettleList
{
    /**
     * @param list<Invoice>    $differs  somebody has to decide
     * @param list<Invoice>    $agrees   may be settled
     * @param list<Uninvoiced> $received and on no invoice
     * @param list<LandedCharge> $expected charges that nobody billed yet
     * @param list<PurchaseOrder> $deposits orders with one agreed that nobody asked for yet
     */
    private function __construct(
        public array $differs,
        public array $agrees,
        public array $received,
        public array $expected,
        public array $deposits,
    ) {
    }

    public static function of(Invoices $invoices, LandedCharges $charges, Deposits $deposits): self
    {
        $differs = $agrees = [];
        foreach ($invoices->in(InvoiceState::Entered) as $invoice) {
            $open = array_filter($invoice->lines(), static fn (InvoiceLine $line): bool => !$line->isDecided());
            if ([] === $open) {
                $agrees[] = $invoice;
            } else {
                $differs[] = $invoice;
            }
        }

        return new self($differs, $agrees, $invoices->uninvoiced(), $charges->expected(), $deposits->due());
    }

    public function first(): ?Invoice
    {
        return $this->differs[0] ?? $this->agrees[0] ?? null;
    }
}
