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
        yield 'two' => ['jar hex'];
        yield 'a code with its hyphen' => ['HIV-NBB'];
        yield 'in capitals' => ['JAR'];
    }

    #[DataProvider('words')]
    public function testBeginningsOfWordsAreFoundByTheIndexAsByLooking(string $typed): void
    {
        $quick = ItemSearch::byBeginnings($typed);
        self::assertNotNull($quick);
        $found = $this->found($quick);

        self::assertNotSame([], $found);
        self::assertSame([], array_diff($found, $this->found(ItemSearch::of($typed))));
    }

    public function testWhereBeginningsFillTheListNothingElseIsLookedThrough(): void
    {
        $search = self::get(QuickSearch::class);
        $several = count($this->found(ItemSearch::byBeginnings('jar') ?? self::fail('no search')));
        self::assertGreaterThan(2, $several);

        self::assertStringContainsString('MATCH', $search->of('jar', $several)->condition);
        self::assertStringNotContainsString('MATCH', $search->of('jar', $several + 1)->condition);
    }

    public function testPartsOfWordsAndShortOnesAreFoundByLooking(): void
    {
        $search = self::get(QuickSearch::class);

        self::assertNotSame([], $this->found($search->of('oundatio', 6)));
        self::assertNull(ItemSearch::byBeginnings('ja'));
        self::assertNull(ItemSearch::byBeginnings('jar 5'));
        self::assertNull(ItemSearch::byBeginnings(' - "*'));
        self::assertNotSame([], $this->found($search->of('ja', 6)));
        // Marks that the index takes for orders of its own say nothing.
        self::assertSame($this->found($search->of('jar', 6)), $this->found($search->of('"jar +(-*~<>@', 6)));
    }
}
