<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\OpenOrder;

final class ComingTest extends TestCase
{
    private static function today(): \DateTimeImmutable
    {
        return new \DateTimeImmutable('2026-11-23');
    }

    private static function order(string $number, int $units, string $due, ?bool $verdict = null): OpenOrder
    {
        return new OpenOrder($number, BigDecimal::of($units), self::today()->modify($due), $verdict);
    }

    /** @param list<OpenOrder> $orders */
    private static function numbers(array $orders): string
    {
        return implode(' ', array_map(static fn (OpenOrder $order): string => $order->number, $orders));
    }

    /** @return iterable<string, array{string, bool|null, bool}> due, what a person says, whether it is counted on */
    public static function lateness(): iterable
    {
        yield 'due today' => ['today', null, true];
        yield 'due today although a person gave it up: it is not late' => ['today', false, true];
        yield 'a day late' => ['-1 day', null, true];
        yield 'fourteen days late' => ['-14 days', null, true];
        yield 'fifteen days late' => ['-15 days', null, false];
        yield 'twenty-nine days late' => ['-29 days', null, false];
        yield 'forgotten, but a person counts on it' => ['-40 days', true, true];
        yield 'a day late, given up by a person' => ['-1 day', false, false];
    }

    #[DataProvider('lateness')]
    public function testWhatIsCountedOn(string $due, ?bool $verdict, bool $counted): void
    {
        $coming = Coming::of([self::order('A', 12, $due, $verdict)], self::today());
        self::assertSame($counted ? '12' : '0', (string) $coming->units());
        self::assertSame($counted ? 'A' : '', self::numbers($coming->countedOn()));
        self::assertSame($counted ? '' : 'A', self::numbers($coming->givenUp()));
        self::assertSame($counted ? 12.0 : 0.0, (float) array_sum($coming->schedule()));
    }

    public function testWhatComesWhen(): void
    {
        $coming = Coming::of(
            [
                self::order('LATER', 5, '+9 days'),
                self::order('SOON', 3, '+2 days'),
                self::order('LATE', 2, '-3 days'),
                self::order('LOST', 100, '-20 days'),
            ],
            self::today(),
        );
        self::assertSame('LOST LATE SOON LATER', self::numbers($coming->orders), 'by the day they are due');
        self::assertSame('LOST LATE', self::numbers($coming->late()));
        self::assertSame([1 => 2.0, 2 => 3.0, 9 => 5.0], $coming->schedule(), 'what is late may come tomorrow');
        self::assertSame(
            ['2', '5', '5', '10'],
            array_map(static fn (float $days): string => (string) $coming->within($days), [0.0, 2.0, 8.9, 9.0]),
        );
        self::assertSame(
            ['SOON LATER', 'LATER', ''],
            array_map(static fn (float $days): string => self::numbers($coming->after($days)), [1.0, 8.9, 9.0]),
        );
        self::assertSame('0', (string) Coming::nothing(self::today())->units());
    }
}
