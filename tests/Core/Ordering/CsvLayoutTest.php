<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\CsvLayout;

final class CsvLayoutTest extends TestCase
{
    public function testTheirColumnsUnderTheirHeadingsInTheirOrder(): void
    {
        $layout = CsvLayout::read("quantity = Menge\r\nyour_code=Art=Nr\nwanted_on", ';', 'PO_{order}');
        self::assertSame(['Menge', 'Art=Nr', 'wanted_on'], $layout->headings());
        self::assertSame(
            ['12', 'X-1', '2026-12-01'],
            $layout->cells(['your_code' => 'X-1', 'wanted_on' => '2026-12-01', 'quantity' => '12', 'price' => '9']),
        );
        self::assertSame('PO_PO-7.csv', $layout->filename('PO-7'));
        self::assertSame(';', $layout->delimiter);
    }

    public function testNothingSaidIsAllOfThemUnderTheNumber(): void
    {
        $layout = CsvLayout::read(' ', ',', ' ');
        self::assertSame(CsvLayout::COLUMNS, $layout->headings());
        self::assertSame('PO-7.csv', $layout->filename('PO-7'));
        self::assertEquals(CsvLayout::usual(), $layout);
    }

    /** @return iterable<string, array{string, string, string, string}> */
    public static function refused(): iterable
    {
        yield 'no column' => ['colour', ',', '', '“colour” is no column of an order; there are: order, line'];
        yield 'twice' => ["price\nprice = P", ',', '', '“price” stands twice'];
        yield 'a delimiter' => ['price', '|', '', '“|” cannot stand between columns'];
        yield 'a path' => ['price', ',', '../x', '“../x” cannot be a file name'];
    }

    #[DataProvider('refused')]
    public function testWhatCannotBeIsNamed(string $columns, string $delimiter, string $filename, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        CsvLayout::read($columns, $delimiter, $filename);
    }
}
