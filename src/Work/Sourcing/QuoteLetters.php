<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;

/** Writes to suppliers about quotes. What was written is kept with the quote. */
interface QuoteLetters
{
    /** With the question as a PDF, a CSV file to fill in, the files of the round, and the supplier's own link. */
    public function ask(Quote $quote, Person $sender): void;

    public function remind(Quote $quote, Person $sender): void;

    public function tellLost(Quote $quote, Person $sender): void;
}
