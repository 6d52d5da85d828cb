<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Ordering\AnsweredLine;
use TallBarrel\Core\Ordering\ChangedPart;
use TallBarrel\Core\Ordering\LineRevision;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Core\Ordering\StatedLine;
use TallBarrel\Core\Ordering\YesRule;
use TallBarrel\Core\Ordering\YesRules;

final class RevisionChangeTest extends TestCase
{
    private static function line(
        int $position,
        string $packs = '10',
        string $price = '4.20',
        string $wanted = '2026-12-01',
    ): StatedLine {
        return StatedLine::of(
            [
                'position' => $position,
                'item' => 'I-'.$position,
                'supplierCode' => 'S-'.$position,
                'description' => 'Thing '.$position,
                'site' => 'FERRY',
                'pack' => 'box × 4',
                'packs' => $packs,
                'price' => $price,
                'wanted' => $wanted,
            ],
            '2026-12-24',
        );
    }

    public function testWhatIsTheSameIsNotSaid(): void
    {
        $change = RevisionChange::between(
            [self::line(1), self::line(2, '10.000', '4.2000')],
            [self::line(2), self::line(1)],
        );
        self::assertTrue($change->isNone());
        self::assertSame([], $change->parts());
    }

    public function testEachLineSaysInWhatItDiffers(): void
    {
        $change = RevisionChange::between(
            [self::line(1), self::line(2), self::line(3), self::line(4)],
            [
                self::line(1, packs: '12'),
                self::line(2, price: '4.00', wanted: '2026-12-08'),
                self::line(4, packs: '0'),
                self::line(5),
            ],
        );
        self::assertSame(
            [[1, ['packs'], false, false], [2, ['price', 'wanted'], false, false], [3, [], false, true],
                [4, [], false, true], [5, [], true, false]],
            array_map(
                static fn (LineRevision $line): array => [
                    $line->position(),
                    $line->differing(),
                    $line->isNew(),
                    $line->isWithdrawn(),
                ],
                $change->lines,
            ),
        );
        self::assertSame('12', (string) $change->at(1)?->after?->packs);
        self::assertNull($change->at(6));
        self::assertEqualsCanonicalizing(
            [ChangedPart::Quantity, ChangedPart::Price, ChangedPart::Day, ChangedPart::Goods],
            $change->parts(),
        );
    }

    public function testADayOrWordsAloneNeedNoYesUnlessTheOwnerSaysSo(): void
    {
        $usual = YesRules::of([]);
        $one = static fn (StatedLine ...$after): RevisionChange => RevisionChange::between(
            [self::line(1)],
            array_values($after),
        );
        $later = $one(self::line(1, wanted: '2026-12-08'));
        $words = RevisionChange::between([self::line(1)], [self::line(1)], true);
        $charged = RevisionChange::between([self::line(1)], [self::line(1)], false, ['Packing 4'], []);
        self::assertSame([ChangedPart::Day], $later->parts());
        self::assertSame([ChangedPart::Words], $words->parts());
        self::assertSame([YesRule::Never, YesRule::Never], [$usual->forAll($later), $usual->forAll($words)]);
        $more = [
            [$one(self::line(1, packs: '11')), ChangedPart::Quantity],
            [$one(self::line(1, price: '4.30')), ChangedPart::Price],
            [$one(self::line(1, packs: '0')), ChangedPart::Goods],
            [$one(self::line(1), self::line(2)), ChangedPart::Goods],
            [$charged, ChangedPart::Charges],
        ];
        foreach ($more as [$change, $part]) {
            self::assertSame([$part], $change->parts());
            self::assertSame(YesRule::BeyondLimit, $usual->forAll($change));
            self::assertSame(YesRule::Never, YesRules::of([$part->value => 'never'])->forAll($change));
            self::assertSame(YesRule::Always, YesRules::of([$part->value => 'always'])->forAll($change));
        }
    }

    public function testTheStrictestOfAllThatChangesHolds(): void
    {
        $change = RevisionChange::between([self::line(1)], [self::line(1, price: '4.30', wanted: '2026-12-08')]);
        $rules = YesRules::of(['price' => 'never', 'day' => 'always', 'weather' => 'always', 'goods' => 'sometimes']);
        self::assertSame(YesRule::Always, $rules->forAll($change));
        self::assertSame(YesRule::BeyondLimit, $rules->for(ChangedPart::Goods), 'what is no rule is passed over');
        self::assertEqualsCanonicalizing(['price' => 'never', 'day' => 'always'], $rules->toArray());
        self::assertTrue($rules->everAsksSomebodyElse());
        self::assertFalse(YesRules::of(['price' => 'never'])->everAsksSomebodyElse());
        self::assertSame(YesRule::BeyondLimit, YesRules::of(['day' => 'never'])->forAll($change));
    }

    public function testWhatWasWithdrawnBeforeIsNotSaidAgain(): void
    {
        $before = [self::line(1), self::line(2, packs: '0')];
        self::assertTrue(RevisionChange::between($before, $before)->isNone());
        self::assertTrue(RevisionChange::between($before, [self::line(1)])->isNone());
    }

    public function testOldRevisionsWithoutDaysByLineHoldTheOrdersDay(): void
    {
        $data = ['position' => 1, 'item' => '', 'supplierCode' => '', 'description' => 'Thing', 'site' => 'FERRY',
            'pack' => 'each', 'packs' => '1', 'price' => '2'];
        self::assertSame('2026-12-24', StatedLine::of($data, '2026-12-24')->wanted);
    }

    public function testAnAnswerNeedsAYesWhereItIsLessOrLaterOrDearer(): void
    {
        $day = new \DateTimeImmutable('2026-12-01');
        $said = static fn (string $packs, string $price, string $on): AnsweredLine => new AnsweredLine(
            7,
            BigDecimal::of($packs),
            BigDecimal::of($price),
            new \DateTimeImmutable($on),
            BigDecimal::of(10),
            BigDecimal::of('4.20'),
            $day,
        );
        self::assertSame([], $said('10.0', '4.2', '2026-12-01')->differing());
        self::assertSame([], $said('10', '4.10', '2026-11-30')->differing(), 'cheaper and sooner');
        self::assertSame(['packs'], $said('11', '4.20', '2026-12-01')->differing());
        self::assertSame(['packs', 'price', 'day'], $said('9', '4.21', '2026-12-02')->differing());
        self::assertFalse($said('10', '4.20', '2026-12-09')->changesTheOrder(), 'a day is a promise, no change');
        self::assertTrue($said('10', '4.10', '2026-12-01')->changesTheOrder());
        self::assertTrue($said('9', '4.20', '2026-12-01')->changesTheOrder());
        $kept = $said('9', '4.21', '2026-12-02');
        self::assertSame($kept->differing(), AnsweredLine::fromArray($kept->toArray())->differing());
    }

    public function testAWishIsKeptAsItWas(): void
    {
        foreach ([new \DateTimeImmutable('2026-12-01'), null] as $day) {
            $wish = new LineWish(null, 4, 'Thing', BigDecimal::of('2.5'), BigDecimal::of('9.3'), $day, 2);
            self::assertEquals($wish, LineWish::fromArray($wish->toArray()));
        }
    }
}
