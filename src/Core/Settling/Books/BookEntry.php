<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Books;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/**
 * What one document does to the accounts: debits and credits that come to the same (double entry; Pacioli 1494, common
 * practice since).
 */
final readonly class BookEntry
{
    /**
     * @param string         $key      unlike any other: a document is booked once
     * @param string         $document its number
     * @param list<BookLine> $lines    none of them 0
     */
    private function __construct(
        public string $key,
        public \DateTimeImmutable $day,
        public string $document,
        public string $words,
        public array $lines,
    ) {
    }

    /**
     * What the amounts leave open, parts of a cent and differences, is booked on one account.
     *
     * @param array<string, BigDecimal> $amounts by account, debits above zero and credits below; home currency
     * @param LedgerAccount             $rest    where the difference belongs
     */
    public static function of(
        string $key,
        \DateTimeImmutable $day,
        string $document,
        string $words,
        array $amounts,
        LedgerAccount $rest,
    ): self {
        $sum = BigDecimal::zero();
        $lines = [];
        foreach ($amounts as $account => $amount) {
            $lines[$account] = $amount->toScale(2, RoundingMode::HalfUp);
            $sum = $sum->plus($lines[$account]);
        }
        $lines[$rest->value] = ($lines[$rest->value] ?? BigDecimal::zero())->minus($sum);
        $booked = [];
        foreach ($lines as $account => $amount) {
            if (!$amount->isZero()) {
                $booked[] = new BookLine(LedgerAccount::from($account), $amount->toScale(2));
            }
        }

        return new self($key, $day, $document, $words, $booked);
    }

    public function isEmpty(): bool
    {
        return [] === $this->lines;
    }

    /** Debits less credits: zero, or the entry is wrong. */
    public function difference(): BigDecimal
    {
        return array_reduce(
            $this->lines,
            static fn (BigDecimal $sum, BookLine $line): BigDecimal => $sum->plus($line->amount),
            BigDecimal::zero(),
        );
    }
}
