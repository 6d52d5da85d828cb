<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Doctrine\DBAL\Connection;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Store\Item\ItemSearch;
use TallBarrel\Store\Item\QuickSearch;

/** What is found while somebody types. */
final class QuickSearchTest extends StoreTestCase
{
    /** @return list<string> codes */
    private function found(ItemSearch $search): array
    {
        /** @var list<string> $codes */
        $codes = self::get(Connection::class)->fetchFirstColumn(
            'SELECT i.code FROM item i WHERE '.$search->condition.' ORDER BY i.code',
            $search->values,
        );

        return $codes;
    }

    /** @return iterable<string, array{string}> */
    public static function words(): iterable
    {
        yield 'a word' => ['frame'];
        yield 'the beginning of one' => ['hon'];
        yield 'the middle of one' => ['oundatio'];
        yield 'two letters' => ['ja'];
        yield 'two words' => ['jar hex'];
        yield 'a code with its hyphen' => ['HIV-NBB'];
        yield 'a supplier’s code' => ['LF-SQ500'];
    }

    #[DataProvider('words')]
    public function testLookedUpBeforeOrAlongTheSameIsFound(string $typed): void
    {
        $found = $this->found(self::get(QuickSearch::class)->of($typed));

        self::assertNotSame([], $found);
        self::assertSame($this->found(ItemSearch::of($typed)), $found);
    }

    public function testWhatStandsForAnythingInAPatternStandsForItself(): void
    {
        self::assertSame([], $this->found(self::get(QuickSearch::class)->of('j_r%')));
    }
}
