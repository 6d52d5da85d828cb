<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;

/** What left our account, beside the invoices it paid. */
final readonly class StatementMatch
{
    /**
     * @param list<Invoice>    $invoices it paid; empty where that is not clear
     * @param list<CreditNote> $credits  taken off
     * @param string           $words    how that is known, or why it is not
     * @param bool             $isNoted  whether it was noted before
     * @param bool             $isPart   whether something stays to be paid
     */
    public function __construct(
        public StatementEntry $entry,
        public array $invoices,
        public array $credits,
        public string $words,
        public bool $isNoted = false,
        public bool $isPart = false,
    ) {
    }
}
