<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Settling\LineMatch;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Core\Settling\Tolerance;

/** An invoice's line against what was ordered and received; the sums are worked by hand. */
final class LineMatchTest extends TestCase
{
    private static function line(
        int $received,
        int $invoiced,
        string $agreed,
        string $asked,
        ?QuantityVerdict $onQuantity = null,
        ?PriceVerdict $onPrice = null,
    ): LineMatch {
        return new LineMatch(
            BigDecimal::of(20),
            BigDecimal::of($received),
            BigDecimal::of($invoiced),
            BigDecimal::of($agreed),
            BigDecimal::of($asked),
            Tolerance::of('1', '5'),
            $onQuantity,
            $onPrice,
        );
    }

    /** @return iterable<string, array{LineMatch, bool, string, string, string}> decided, owed packs, price, and line */
    public static function lines(): iterable
    {
        yield 'as ordered' => [self::line(20, 20, '13.20', '13.20'), true, '20', '13.20', '264.00'];
        yield 'less invoiced than came' => [self::line(20, 15, '13.20', '13.20'), true, '15', '13.20', '198.00'];
        yield 'three did not come' => [self::line(17, 20, '13.20', '13.20'), false, '17', '13.20', '224.40'];
        yield 'and are not paid' => [
            self::line(17, 20, '13.20', '13.20', QuantityVerdict::AsReceived), true, '17', '13.20', '224.40',
        ];
        yield 'or credited' => [
            self::line(17, 20, '13.20', '13.20', QuantityVerdict::Credit), true, '17', '13.20', '224.40',
        ];
        yield 'or paid, since they are on their way' => [
            self::line(17, 20, '13.20', '13.20', QuantityVerdict::Awaited), true, '20', '13.20', '264.00',
        ];
        yield 'cheaper than agreed' => [self::line(20, 20, '13.20', '12.00'), true, '20', '12.00', '240.00'];
        yield 'a percent dearer passes' => [self::line(3, 3, '100.00', '101.00'), true, '3', '101.00', '303.00'];
        yield 'more than a percent does not' => [self::line(3, 3, '100.00', '101.01'), false, '3', '100.00', '300.00'];
        yield 'nor more than five a line' => [self::line(20, 20, '100.00', '100.30'), false, '20', '100.00', '2000.00'];
        yield 'the agreed price is paid' => [
            self::line(3, 3, '41.50', '42.75', null, PriceVerdict::AsAgreed), true, '3', '41.50', '124.50',
        ];
        yield 'or the price follows' => [
            self::line(3, 3, '41.50', '42.75', null, PriceVerdict::Accepted), true, '3', '42.75', '128.25',
        ];
        yield 'both differ, one decided' => [
            self::line(17, 20, '10.00', '12.00', QuantityVerdict::AsReceived), false, '17', '10.00', '170.00',
        ];
        yield 'nothing of it came' => [self::line(0, 4, '9.00', '9.00'), false, '0', '9.00', '0.00'];
    }

    #[DataProvider('lines')]
    public function testWhatIsOwed(LineMatch $line, bool $decided, string $packs, string $price, string $owed): void
    {
        self::assertSame($decided, $line->isDecided());
        self::assertSame([$packs, $price], [(string) $line->owedPacks(), (string) $line->owedPrice()]);
        self::assertSame($owed, (string) $line->owedPacks()->multipliedBy($line->owedPrice())->toScale(2));
    }

    public function testWhatTheDifferencesAreWorth(): void
    {
        $line = self::line(17, 20, '13.20', '14.00');
        self::assertSame('3', (string) $line->notReceived());
        self::assertSame('42.00', (string) $line->valueNotReceived());
        self::assertSame('0.80', (string) $line->overcharged());
        self::assertSame('13.60', (string) $line->valueOvercharged(), 'on the 17 that are owed');
        self::assertTrue($line->differs());
        self::assertFalse(self::line(20, 20, '13.20', '13.30')->differs(), 'ten cents are within a percent');
    }

    public function testATolerancesLimits(): void
    {
        try {
            Tolerance::of('20.01', '0');
            self::fail('over a fifth');
        } catch (InvalidValue $invalid) {
            self::assertStringContainsString('20.01', $invalid->getMessage());
        }
        $this->expectExceptionMessage('-1');
        Tolerance::of('1', '-1');
    }
}
