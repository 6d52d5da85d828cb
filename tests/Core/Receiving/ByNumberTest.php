<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Receiving;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Receiving\SerialNumbers;

/** Serial numbers, lots, and what goods that go back do to the average cost. */
final class ByNumberTest extends TestCase
{
    /** @return iterable<string, array{string, list<string>}> */
    public static function typed(): iterable
    {
        yield 'nothing' => [" \n ", []];
        yield 'one a line, with commas, with blanks' => ["A1\nA2, A3;A4  A5", ['A1', 'A2', 'A3', 'A4', 'A5']];
        yield 'a range with a hyphen of its own' => ['KX-99-KX-100', ['KX-99-KX-100']];
        yield 'the same, as long' => ['KX-099-KX-101', ['KX-099', 'KX-100', 'KX-101']];
        yield 'a range with its letters' => ['K098-K101', ['K098', 'K099', 'K100', 'K101']];
        yield 'a range of figures' => ['0998..1001', ['0998', '0999', '1000', '1001']];
        yield 'other letters are no range' => ['A1-B3', ['A1-B3']];
        yield 'nor other lengths' => ['A1-A10', ['A1-A10']];
        yield 'one alone' => ['7-7', ['7']];
    }

    /** @param list<string> $numbers */
    #[DataProvider('typed')]
    public function testSerialNumbersAreReadAsTheyAreTyped(string $typed, array $numbers): void
    {
        self::assertSame($numbers, SerialNumbers::read($typed));
    }

    /** @return iterable<string, array{string, string}> */
    public static function slips(): iterable
    {
        yield 'twice' => ['A1 a1', 'a1 stands twice'];
        yield 'twice, in a range' => ['A1 A0-A3', 'stands twice'];
        yield 'backwards' => ['A9-A3', 'runs backwards'];
        yield 'too many' => ['00000-90000', 'more than 5000'];
        yield 'too long' => [str_repeat('x', 41), 'longer than 40'];
    }

    #[DataProvider('slips')]
    public function testASlipIsNamed(string $typed, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);

        SerialNumbers::read($typed);
    }

    public function testUseByFollowsFromTheShelfLifeUnlessItIsSaid(): void
    {
        $made = new \DateTimeImmutable('2026-11-01');
        $today = new \DateTimeImmutable('2026-11-23 15:00');
        self::assertSame('2026-11-11', LotFacts::of('L', null, $made, '', 10)->expiresOn?->format('Y-m-d'));
        $said = LotFacts::of(' L ', new \DateTimeImmutable('2026-12-24'), $made, 'ie', 10, $today);
        self::assertSame(['L', '2026-12-24', 'IE'], [$said->number, $said->expiresOn?->format('Y-m-d'), $said->origin]);
        self::assertNull(LotFacts::of('L', null, $made)->expiresOn);
        self::assertTrue(LotFacts::of('L', new \DateTimeImmutable('2026-11-22'))->isOver($today));
        self::assertFalse(LotFacts::of('L', new \DateTimeImmutable('2026-11-23'))->isOver($today));
        self::assertFalse(LotFacts::of('L', null)->isOver($today));
        foreach (
            [
                [['2026-10-01', '2026-11-01', ''], 'is before it was made'],
                [[null, '2026-11-24', ''], 'still to come'],
                [[null, null, 'XX'], 'XX'],
            ] as [[$until, $made, $origin], $words]
        ) {
            $day = static fn (?string $day): ?\DateTimeImmutable => null === $day ? null : new \DateTimeImmutable($day);
            try {
                LotFacts::of('L', $day($until), $day($made), $origin, null, $today);
                self::fail('not refused: '.$words);
            } catch (InvalidValue $invalid) {
                self::assertStringContainsString($words, $invalid->getMessage());
            }
        }
    }

    public function testDetailsOfALotAreAskedWhenTheItemSaysSo(): void
    {
        self::assertFalse(LotDetails::Never->areNeeded(false));
        self::assertTrue(LotDetails::NewLots->areNeeded(false));
        self::assertFalse(LotDetails::NewLots->areNeeded(true));
        self::assertTrue(LotDetails::Always->areNeeded(true));
    }

    /**
     * Worked by hand: 10 at 5.00 and 10 at 7.00 are 6.00; the second lot goes back: 5.00. Common practice, no source.
     */
    public function testWhatGoesBackTakesItsOwnCostAlong(): void
    {
        $without = static function (int $held, string $cost, int $taken, string $paid): string {
            [$held, $cost, $taken, $paid] = array_map(BigDecimal::of(...), [$held, $cost, $taken, $paid]);

            return (string) AverageCost::without($held, $cost, $taken, $paid)->strippedOfTrailingZeros();
        };
        self::assertSame('5', $without(20, '6.00', 10, '7.00'));
        // 4 sold before at 6.00: 16 are worth 96; 10 at 7.00 go back, 6 are left for 26.
        self::assertSame('4.333333', $without(16, '6.00', 10, '7.00'));
        self::assertSame('6', $without(10, '6.00', 10, '7.00'), 'nothing is left');
        self::assertSame('6', $without(12, '6.00', 11, '7.00'), 'more than all of it is worth');
        self::assertSame('6', $without(4, '6.00', 10, '7.00'), 'oversold');
    }
}
