<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk\Reorder;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\ExplanationLine;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\Remark;
use TallBarrel\Core\Replenish\Term;
use TallBarrel\Desk\Reorder\WhyWords;

/**
 * A why in words: every kind of line and remark says what it is, with its amounts, in the units a shopkeeper counts.
 */
final class WhyWordsTest extends KernelTestCase
{
    /** @return iterable<string, array{Term, float, array<string, float|int|string>, string, string}> */
    public static function lines(): iterable
    {
        yield 'to the next order' => [
            Term::ForecastUntilNext,
            412.0,
            ['lead' => 5.94, 'review' => 7],
            'Forecast over 5.9 d delivery + 7 d until the next order',
            '412',
        ];
        yield 'as long as it lasts' => [
            Term::ForecastOverCover,
            1140.0,
            ['lead' => 6.0, 'cover' => 27.9, 'basis' => 'reaches-break'],
            'Forecast over 6 d delivery + 27.9 d, reaches a price break',
            '1,140',
        ];
        yield 'safety' => [
            Term::SafetyStock,
            147.0,
            ['target' => 'cycle', 'level' => 0.97, 'spread' => 1.0],
            'Safety stock, 97 % of deliveries in time, delivery ± 1 d',
            '147',
        ];
        yield 'maximum' => [Term::Maximum, 60.0, ['minimum' => 20.0], 'Maximum, once under 20', '60'];
        yield 'planned' => [
            Term::Planned,
            192.0,
            ['name' => 'Market day', 'day' => '2026-11-28'],
            'Market day, Sat 28 Nov (planned)',
            '192',
        ];
        yield 'total' => [Term::Needed, 1234.5, [], 'Needed', '1,234.5 kg'];
        yield 'lots' => [Term::InLots, 100.0, ['lot' => 50.0], 'In lots of 50', '100'];
        yield 'ahead' => [
            Term::BoughtAhead,
            30.0,
            ['percent' => 4.25, 'day' => '2027-01-01'],
            'Bought ahead: 4.3 % dearer from 1 Jan',
            '30',
        ];
        yield 'keeps' => [Term::SellsInTime, 8.0, ['days' => 90], 'Less, so that it sells within its 90 days', '8'];
        yield 'packs' => [
            Term::InPacks,
            3.0,
            ['exact' => 2.3, 'pack' => 'case', 'content' => 12.0],
            'In what can be bought: case × 12 (2.3)',
            '3 cases',
        ];
        yield 'one pack' => [
            Term::UpToBreak,
            1.0,
            ['from' => 1200.0, 'saves' => 12.3, 'costs' => 4.1, 'pack' => 'pallet', 'content' => 1200.0],
            'Up to the price break at 1,200: saves €12.30, holding it costs €4.10',
            '1 pallet',
        ];
    }

    /** @param array<string, float|int|string> $with */
    #[DataProvider('lines')]
    public function testALineOfTheSum(Term $term, float $amount, array $with, string $label, string $figure): void
    {
        $line = new ExplanationLine($term, '', $amount, $with);
        self::assertSame($label, self::words()->label($line));
        self::assertSame($figure, WhyWords::amount($line, Unit::Kilogram));
    }

    public function testEveryTermAndEveryRemarkHasWordsOfItsOwn(): void
    {
        $with = [
            'lead' => 1,
            'review' => 1,
            'cover' => 1,
            'basis' => 'as-asked',
            'target' => 'fill',
            'level' => 0.9,
            'spread' => 0,
            'minimum' => 1,
            'name' => 'x',
            'day' => '2026-12-01',
            'lot' => 1,
            'percent' => 1,
            'days' => 2,
            'exact' => 1,
            'pack' => 'case',
            'content' => 1,
            'from' => 1,
            'weeks' => 3,
            'usual' => 5,
            'saves' => 2,
            'costs' => 1,
            'order' => 'PO-1',
            'units' => 3,
            'daysLate' => 1,
            'due' => '2026-12-01',
            'by' => '2026-12-01',
            'position' => 1,
            'point' => 1,
            'item' => 'X',
            'factor' => 1,
            'until' => '2026-12-01',
            'reason' => 'r',
            'supplier' => 'S',
            'cost' => 1,
            'chosen' => 2,
            'second' => 0,
            'times' => 3,
        ];
        $labels = array_map(
            static fn (Term $term): string => self::words()->label(new ExplanationLine($term, '', 1.0, $with)),
            Term::cases(),
        );
        self::assertSame($labels, array_values(array_unique($labels)));
        $words = self::words();
        $remarks = array_map(
            static fn (Remark $remark): string => $words->remark(new Note($remark, $with), Unit::Each),
            Remark::cases(),
        );
        self::assertSame($remarks, array_values(array_unique($remarks)));
        self::assertSame(
            [],
            array_intersect($remarks, array_map(static fn (Remark $one): string => $one->value, Remark::cases())),
        );
    }

    public function testRemarksNameOrderDayAndMoney(): void
    {
        $words = self::words();
        self::assertSame(
            'PO-1012, 400 pcs, is 1 day late and not counted on.',
            $words->remark(
                new Note(Remark::ForgottenOrder, ['order' => 'PO-1012', 'units' => 400.0, 'daysLate' => 1]),
                Unit::Each,
            ),
        );
        self::assertSame(
            'Ostrel would cost €1.50 for one against €2.00 and comes second by rank, lead time 5 days.',
            $words->remark(
                new Note(Remark::OtherSupplier, [
                    'supplier' => 'Ostrel',
                    'cost' => 1.5,
                    'chosen' => 2.0,
                    'second' => 1,
                    'days' => 5,
                ]),
                Unit::Each,
            ),
        );
        self::assertSame(
            'Nothing is due: 1,465 pcs in stock and coming in time is above the reorder point of 464.',
            $words->remark(new Note(Remark::AboveReorderPoint, ['position' => 1465.0, 'point' => 464.0]), Unit::Each),
        );
        self::assertSame('price −12 %', WhyWords::odd(new Note(Remark::PriceJump, ['percent' => -12.0])));
    }

    private static function words(): WhyWords
    {
        $words = self::getContainer()->get(WhyWords::class);
        self::assertInstanceOf(WhyWords::class, $words);

        return $words;
    }
}
