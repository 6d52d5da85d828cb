<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Store\Settle\DepositRow;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\ExpectedRow;
use TallBarrel\Store\Settle\InvoiceRow;
use TallBarrel\Store\Settle\InvoiceRows;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Settle\Uninvoiced;

/** What is to be settled: invoices that differ, those that agree, and what came without one. */
final readonly class SettleList
{
    /** Of each kind, as many stand on the side; all of them when that is asked for. */
    private const SHOWN = 12;
    private const RECEIVED_SHOWN = 30;

    /**
     * @param list<InvoiceRow> $differs  somebody has to decide
     * @param list<InvoiceRow> $agrees   may be settled
     * @param list<Uninvoiced> $received and on no invoice
     * @param list<ExpectedRow> $expected charges that nobody billed yet
     * @param list<DepositRow> $deposits orders with one agreed that nobody asked for yet
     * @param bool $whole whether all of each is shown, however much it is
     */
    private function __construct(
        public array $differs,
        public array $agrees,
        public array $received,
        private array $expected,
        private array $deposits,
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
            // One more tells that there are more.
            $charges->expectedRows($whole ? \PHP_INT_MAX : self::SHOWN + 1),
            $deposits->due($whole ? \PHP_INT_MAX : self::SHOWN + 1),
            $whole,
        );
    }

    /** @return list<Uninvoiced> of what was received, those that are shown */
    public function shown(): array
    {
        return $this->whole ? $this->received : array_slice($this->received, 0, self::RECEIVED_SHOWN);
    }

    /** @return list<ExpectedRow> */
    public function expected(): array
    {
        return $this->whole ? $this->expected : array_slice($this->expected, 0, self::SHOWN);
    }

    public function areMoreExpected(): bool
    {
        return count($this->expected) > count($this->expected());
    }

    /** @return list<DepositRow> */
    public function deposits(): array
    {
        return $this->whole ? $this->deposits : array_slice($this->deposits, 0, self::SHOWN);
    }

    public function areMoreDeposits(): bool
    {
        return count($this->deposits) > count($this->deposits());
    }

    public function first(): ?InvoiceRow
    {
        return $this->differs[0] ?? $this->agrees[0] ?? null;
    }
}
