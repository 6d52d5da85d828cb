<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\BookLine;
use TallBarrel\Core\Settling\Books\LedgerAccount;

/** Debits and credits that come to the same. */
final class BookEntryTest extends TestCase
{
    /** @param array<string, string> $amounts */
    private static function entry(array $amounts, LedgerAccount $rest = LedgerAccount::PriceDifference): BookEntry
    {
        return BookEntry::of(
            'invoice-7',
            new \DateTimeImmutable('2027-01-31'),
            'V-7',
            'Invoice',
            array_map(BigDecimal::of(...), $amounts),
            $rest,
        );
    }

    /** @return array<string, string> */
    private static function lines(BookEntry $entry): array
    {
        $lines = [];
        foreach ($entry->lines as $line) {
            $lines[$line->account->value] = (string) $line->amount;
        }

        return $lines;
    }

    /** By hand: 100.00 of goods with 23.00 of tax, for which 123.00 are owed. */
    public function testWhatComesOutEvenNeedsNoOtherAccount(): void
    {
        $entry = self::entry(['received' => '100', 'tax' => '23', 'payables' => '-123']);
        self::assertSame(['received' => '100.00', 'tax' => '23.00', 'payables' => '-123.00'], self::lines($entry));
        self::assertTrue($entry->difference()->isZero());
        self::assertFalse($entry->isEmpty());
        self::assertSame(['invoice-7', 'V-7', 'Invoice'], [$entry->key, $entry->document, $entry->words]);
    }

    /** By hand: 0.005 is a cent, 0.004 none; the third of 10.00 leaves a cent open. */
    public function testPartsOfACentGoWhereDifferencesBelong(): void
    {
        $entry = self::entry(['stock' => '3.333', 'charges' => '3.335', 'payables' => '-6.668']);
        self::assertSame(['stock' => '3.33', 'charges' => '3.34', 'payables' => '-6.67'], self::lines($entry));
        $entry = self::entry(['stock' => '3.333', 'charges' => '3.333', 'payables' => '-6.67']);
        self::assertSame('0.01', self::lines($entry)['price-difference']);
        self::assertTrue($entry->difference()->isZero());
    }

    public function testTheRestIsAddedToWhatStandsThereAndWhatIsNothingIsLeftOut(): void
    {
        $entry = self::entry(['stock' => '10', 'received' => '0.004', 'payables' => '-12'], LedgerAccount::Stock);
        self::assertSame(['stock' => '12.00', 'payables' => '-12.00'], self::lines($entry));
        self::assertTrue(self::entry(['stock' => '0.001'])->isEmpty());
    }

    public function testALineIsADebitOrACredit(): void
    {
        $line = static fn (string $amount): BookLine => new BookLine(LedgerAccount::Bank, BigDecimal::of($amount));
        self::assertSame(['5.00', null], [(string) $line('5.00')->debit(), $line('5.00')->credit()]);
        self::assertSame([null, '5.00'], [$line('-5.00')->debit(), (string) $line('-5.00')->credit()]);
    }

    public function testAWrongEntryWouldShow(): void
    {
        $entry = self::entry(['stock' => '1', 'payables' => '-1']);
        $broken = (new \ReflectionClass(BookEntry::class))->newInstanceWithoutConstructor();
        (new \ReflectionProperty(BookEntry::class, 'lines'))->setValue($broken, [$entry->lines[0]]);
        self::assertSame('1.00', (string) $broken->difference());
    }
}
