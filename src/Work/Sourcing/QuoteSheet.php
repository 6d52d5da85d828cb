<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;

/**
 * The question as a CSV file that can be filled in and sent back.
 *
 * @phpstan-import-type AnswerLine from QuoteAnswer
 */
interface QuoteSheet
{
    public function blank(Quote $quote): string;

    /**
     * @return array{lines: list<AnswerLine>, leadDays: int, validUntil: \DateTimeImmutable|null, charges: string|null,
     *      note: string}
     *
     * @throws InvalidValue naming every row, column and value that cannot be read
     */
    public function read(Quote $quote, string $csv): array;
}
