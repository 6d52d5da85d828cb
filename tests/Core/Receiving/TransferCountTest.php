<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Receiving;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\CountRhythm;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\TransferCount;

/** What came of what another site of ours sent. */
final class TransferCountTest extends TestCase
{
    private static function counted(string $came, string $bad, bool $lost = false, string $why = 'wet'): TransferCount
    {
        return new TransferCount(
            BigDecimal::of(10),
            BigDecimal::of($came),
            BigDecimal::of($bad),
            $why,
            $lost,
        );
    }

    /** @return iterable<string, array{string, string, bool, array{string, string, string, string}}> */
    public static function counts(): iterable
    {
        yield 'all' => ['10', '0', false, ['10', '0', '0', '0']];
        yield 'all, lost ticked all the same' => ['10', '0', true, ['10', '0', '0', '0']];
        yield 'three never left' => ['7', '0', false, ['7', '3', '0', '3']];
        yield 'three are lost' => ['7', '0', true, ['7', '3', '0', '0']];
        yield 'two more came than were said to' => ['12', '0', false, ['12', '0', '2', '-2']];
        yield 'two more came, lost ticked' => ['12', '0', true, ['12', '0', '2', '-2']];
        yield 'one of eight is bad' => ['8', '1', false, ['7', '2', '0', '2']];
        yield 'all that came is bad' => ['4', '4', true, ['0', '6', '0', '0']];
    }

    /** @param array{string, string, string, string} $expected good, missing, beyond, back where it came from */
    #[DataProvider('counts')]
    public function testOfTenThatLeft(string $came, string $bad, bool $lost, array $expected): void
    {
        $count = self::counted($came, $bad, $lost);
        self::assertSame($expected, array_map(strval(...), [
            $count->good(), $count->missing(), $count->beyond(), $count->backThere(),
        ]));
    }

    /** @return iterable<string, array{string, string, string, string}> */
    public static function refused(): iterable
    {
        yield 'less than nothing came' => ['-1', '0', 'wet', '-1; expected 0 or more.'];
        yield 'less than nothing is bad' => ['5', '-2', 'wet', '-2; expected 0 or more.'];
        yield 'more is bad than came' => ['5', '6', 'wet', '6 not good of 5 that came.'];
        yield 'bad, and nobody says why' => ['5', '1', '  ', 'Say what is wrong with them.'];
    }

    #[DataProvider('refused')]
    public function testWhatCannotBeIsRefused(string $came, string $bad, string $why, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        self::counted($came, $bad, false, $why);
    }

    public function testAsSentIsAllOfItAndNothingBad(): void
    {
        $count = TransferCount::asSent(BigDecimal::of('2.5'));
        self::assertSame([2.5, 0.0, 0.0], array_map(
            static fn (BigDecimal $units): float => $units->toFloat(),
            [$count->good(), $count->missing(), $count->backThere()],
        ));
        self::assertSame(['', false], [$count->why, $count->lost]);
    }

    public function testSomebodyLooksAtASampleOrAllOfIt(): void
    {
        $looked = static fn (string $by): array => array_map(
            static fn (InspectionRule $rule): string => $rule->value,
            array_values(array_filter(
                InspectionRule::cases(),
                static fn (InspectionRule $rule): bool => 'sample' === $by ? $rule->isSample() : $rule->isInspected(),
            )),
        );
        self::assertSame(['sample', 'fewer'], $looked('sample'));
        self::assertSame(['sample', 'fewer', 'all'], $looked('any'));
    }

    /** Common practice, no source: a month, a quarter, half a year. */
    public function testWhatIsWorthMostIsCountedMostOften(): void
    {
        self::assertSame([30, 90, 180], array_map(
            CountRhythm::days(...),
            [ValueClass::A, ValueClass::B, ValueClass::C],
        ));
    }
}
