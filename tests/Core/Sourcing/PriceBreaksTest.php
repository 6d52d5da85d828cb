<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** Prices of one pack by how much is bought: 9.30, from 40 on 8.97, from 100 on 8.50. */
final class PriceBreaksTest extends TestCase
{
    private const TYPED = '1=9.30 40=8.97 100=8.50';

    private static function breaks(
        string $typed = self::TYPED,
        BreakKind $kind = BreakKind::AllUnits,
        BreakBasis $basis = BreakBasis::Quantity,
    ): PriceBreaks {
        return PriceBreaks::read($typed, $kind, $basis);
    }

    /** @return iterable<string, array{int|string, string, string, string}> */
    public static function quantities(): iterable
    {
        yield 'one' => [1, '9.30', '9.3', '9.3'];
        yield 'just below a break' => [39, '9.30', '362.7', '362.7'];
        yield 'at a break' => [40, '8.97', '358.8', '372'];
        yield 'just above' => [41, '8.97', '367.77', '380.97'];
        yield 'at the next' => [100, '8.50', '850', '910.2'];
        yield 'half a pack' => ['0.5', '9.30', '4.65', '4.65'];
    }

    /**
     * By hand: all units at the price reached; incremental 40 at 9.30, 60 more at 8.97, the rest at 8.50, so that 41
     * cost 40 × 9.30 + 8.97 = 380.97 and 100 cost 372.00 + 538.20 = 910.20.
     */
    #[DataProvider('quantities')]
    public function testWhatSoManyCost(int|string $packs, string $price, string $all, string $beyond): void
    {
        self::assertSame($price, (string) self::breaks()->priceFor($packs)->toScale(2));
        self::assertSame($all, (string) self::breaks()->costOf($packs)->strippedOfTrailingZeros());
        $incremental = self::breaks(kind: BreakKind::Incremental);
        self::assertSame($beyond, (string) $incremental->costOf($packs)->strippedOfTrailingZeros());
    }

    public function testTheOrderTheyAreTypedInDoesNotMatter(): void
    {
        self::assertSame('1=9.3 40=8.97 100=8.5', self::breaks('100=8.50 1=9.30 40=8.97')->label());
        self::assertSame('9.3', self::breaks('9.30')->label());
        self::assertSame('5=9.3', self::breaks('5=9.30')->label());
        self::assertSame('1=9 40=9', self::breaks('1=9 40=9')->label(), 'a price may stay as it is');
    }

    /** By hand: 300 of value at a list price of 9.30 are 32.26 packs, so from 33 on. */
    public function testABreakByValueStartsAtSoManyPacks(): void
    {
        $breaks = self::breaks('1=9.30 300=8.97', basis: BreakBasis::Value);
        self::assertSame(['9.3', '8.97'], [
            (string) $breaks->priceFor(32)->strippedOfTrailingZeros(),
            (string) $breaks->priceFor(33)->strippedOfTrailingZeros(),
        ]);
        self::assertSame('32.258065', (string) $breaks->byPacks()[1]['from']);
        self::assertSame(['300', '8.97'], array_map(strval(...), array_values($breaks->steps[1])));
    }

    /** By hand: less a tenth and then five percent is 0.855: 9.30 becomes 7.9515, 8.97 becomes 7.66935. */
    public function testDiscountsComeOffEachPriceAndBreaksStayWhereTheyAre(): void
    {
        $less = ChainedDiscounts::read('10 + 5');
        $after = self::breaks('1=9.30 40=8.97')->after($less);
        self::assertSame('1=7.9515 40=7.66935', $after->label());
        $byValue = self::breaks('1=9.30 300=8.97', basis: BreakBasis::Value)->after($less);
        self::assertSame('32.258065', (string) $byValue->byPacks()[1]['from'], 'list prices reach the value');
        $breaks = self::breaks();
        self::assertSame($breaks, $breaks->after(ChainedDiscounts::read('')));
    }

    public function testTheSameFiguresReckonedAnotherWay(): void
    {
        $breaks = self::breaks('1=9.30 300=8.97');
        self::assertSame($breaks, $breaks->reckonedAs(BreakKind::AllUnits, BreakBasis::Quantity));
        $other = $breaks->reckonedAs(BreakKind::Incremental, BreakBasis::Value);
        self::assertSame([BreakKind::Incremental, BreakBasis::Value], [$other->kind, $other->basis]);
        self::assertSame('32.258065', (string) $other->byPacks()[1]['from']);
        self::assertSame(BreakKind::Incremental, $breaks->reckonedAs(BreakKind::Incremental, $breaks->basis)->kind);
        self::assertSame(BreakBasis::Value, $breaks->reckonedAs($breaks->kind, BreakBasis::Value)->basis);
    }

    public function testAnotherPriceWhereSoManyStand(): void
    {
        $with = static fn (int $packs, string $price): string => self::breaks()
            ->withPriceAt($packs, BigDecimal::of($price))->label();
        self::assertSame('1=9.1 40=8.97 100=8.5', $with(39, '9.10'));
        self::assertSame('1=9.3 40=8.6 100=8.5', $with(40, '8.60'));
        self::assertSame('1=9.3 40=8.97 100=8.2', $with(5000, '8.20'));
        $this->expectExceptionMessage('From 40 on the price rises from 8.9 to 8.97');
        $with(1, '8.9');
    }

    public function testOneMeanPriceOfIncrementalStepsIsNoOffer(): void
    {
        $one = self::breaks('9.30', BreakKind::Incremental)->withPriceAt(1, BigDecimal::of(9));
        self::assertSame('9', $one->label());
        $this->expectExceptionMessage('one mean price cannot become the offer');
        self::breaks(kind: BreakKind::Incremental)->withPriceAt(1, BigDecimal::of(9));
    }

    /** @return iterable<string, array{list<array{int|string, int|string}>, string}> */
    public static function refused(): iterable
    {
        yield 'none' => [[], 'An offer needs at least one price.'];
        yield 'below nothing' => [[[1, '-0.01']], 'a price of 0 or more'];
        yield 'two at one place' => [[[1, 9], [40, 8], ['40.0', 7]], 'Two prices both start at 40'];
        yield 'a rise' => [[[1, 9], [40, '9.01']], 'From 40 on the price rises from 9 to 9.01'];
    }

    /** @param list<array{int|string, int|string}> $steps */
    #[DataProvider('refused')]
    public function testWhatIsNoPriceListIsRefused(array $steps, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        PriceBreaks::of($steps);
    }

    public function testWhatCostsNothingIsReckonedByPacks(): void
    {
        $free = PriceBreaks::of([[1, 0], [10, 0]], basis: BreakBasis::Value);
        self::assertSame('10', (string) $free->byPacks()[1]['from']);
        self::assertSame('0', (string) $free->costOf(12)->strippedOfTrailingZeros());
    }
}
