<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk\Shell;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Format;

final class FieldsTest extends TestCase
{
    /** @param array<string, mixed> $typed */
    private static function typed(array $typed): Fields
    {
        return Fields::of(new Request([], $typed));
    }

    /** @return iterable<array{string, string|null}> */
    public static function prices(): iterable
    {
        yield ['9.30', '9.3'];
        yield ['9,30', '9.3'];
        yield ['1,234.50', '1234.5'];
        yield ['12.500,00', '12500'];
        yield ['1,234', '1234'];
        yield ['0', '0'];
        yield ['0.1234', '0.1234'];
        yield ['', null];
    }

    #[DataProvider('prices')]
    public function testReadsPricesAsPeopleTypeThem(string $typed, ?string $price): void
    {
        $fields = self::typed([]);
        self::assertSame($price, $fields->price('price', $typed)?->toString());
        self::assertTrue($fields->isGood());
    }

    public function testWhatCannotBeReadStaysWithItsReason(): void
    {
        $fields = self::typed(['name' => str_repeat('x', 300), 'weekdays' => [1 => '1', 'x' => '1', 3 => ['deep']]]);
        self::assertNull($fields->price('price', '-4'));
        self::assertNull($fields->price('cost', '12.3456789'));
        self::assertNull($fields->quantity('quantity', 'some'));
        self::assertNull($fields->day('day', '2026-02-30'));
        self::assertNull($fields->day('other', '30/11/2026'));
        $fields->text('name');
        self::assertSame(['price', 'cost', 'quantity', 'day', 'other', 'name'], array_keys($fields->errors()));
        self::assertStringContainsString('“2026-02-30” is not a day', $fields->errors()['day']);
        self::assertSame([1 => '1'], $fields->each('weekdays'), 'what does not belong there is not read');
        $fields->refuse('price', 'a second reason');
        self::assertStringContainsString('-4', $fields->errors()['price'], 'the first reason stands');
    }

    public function testAnEmptyFieldIsNotZero(): void
    {
        self::assertNull(self::typed([])->quantity('quantity', ''));
        self::assertTrue(self::typed([])->quantity('quantity', '0')?->isZero());
        self::assertSame('', self::typed(['note' => ['array']])->text('note'));
        self::assertSame('2026-11-30', self::typed([])->day('day', '2026-11-30')?->format('Y-m-d'));
    }

    public function testFiguresAreWrittenOneWay(): void
    {
        self::assertSame('€1,234.50', Format::money(Money::of('1234.5', 'EUR')));
        self::assertSame('−£12.00', Format::money(Money::of('-12', 'GBP')));
        self::assertSame("PLN\u{a0}20,910.00", Format::money(Money::of('20910', 'PLN')));
        self::assertSame('JP¥1,235', Format::money(Money::of('1234.5', 'JPY')));
        self::assertSame('€1,235', Format::money(Money::of('1234.5', 'EUR'), true));
        self::assertSame('1,400', Format::figure('1400.000'));
        self::assertSame('2.5', Format::figure(BigDecimal::of('2.500')));
        self::assertSame('−3', Format::figure(-3));
        self::assertSame('0', Format::figure(-0.0001, 1));
        self::assertSame('–', Format::figure(null));
        self::assertSame('9.30', Format::price(BigDecimal::of('9.3')));
        self::assertSame('0.0712', Format::price(BigDecimal::of('0.0712')));
        self::assertSame('2.5', Format::plain(BigDecimal::of('2.500')));
        self::assertSame(
            ['1 order', '2 orders', '1,200 quantities'],
            [Format::plural(1, 'order'), Format::plural(2, 'order'), Format::plural(1200, 'quantity', 'quantities')],
        );
    }
}
