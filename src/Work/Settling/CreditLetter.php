<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;

/** Asks a supplier for a credit note; the letter is in the queue when the step is saved, or not at all. */
interface CreditLetter
{
    /** @throws Refused if there is nobody to write to */
    public function ask(Invoice $invoice, InvoiceLine $line, Person $by): void;
}
