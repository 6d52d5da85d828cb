<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;

/** Rounding to what can be bought: common practice, no source; the cases are those of an owner's everyday. */
final class BuyingRuleTest extends TestCase
{
    /** @return iterable<string, array{BuyingRule, string, string}> */
    public static function needs(): iterable
    {
        $case = Pack::of('case', 12);
        yield '2.3 cases means 3' => [BuyingRule::of($case), '28', '3'];
        yield 'a whole number of cases stays' => [BuyingRule::of($case), '36', '3'];
        yield 'layers of 8' => [BuyingRule::of($case, 1, 8), '564', '48'];
        yield 'one over a layer is the next layer' => [BuyingRule::of($case, 1, 8), '577', '56'];
        yield 'under the minimum' => [BuyingRule::of($case, 5), '12', '5'];
        yield 'a minimum between steps' => [BuyingRule::of($case, 5, 4), '12', '8'];
        yield 'a split case' => [BuyingRule::of($case, 0, 1, true), '30', '2.5'];
        yield 'kilograms from sacks of 25' => [BuyingRule::of(Pack::of('sack', 25)), '60.5', '3'];
        yield 'a pack of half a unit' => [BuyingRule::of(Pack::of('half', '0.5')), '1.2', '3'];
        yield 'no need' => [BuyingRule::of($case, 5), '0', '0'];
        yield 'more than enough' => [BuyingRule::of($case, 5), '-14', '0'];
    }

    #[DataProvider('needs')]
    public function testRoundsUpToWhatCanBeBought(BuyingRule $rule, string $need, string $packs): void
    {
        self::assertSame($packs, (string) $rule->packsFor($need));
    }

    public function testWhatItProposesItNeverObjectsTo(): void
    {
        foreach ([1, 5, 12] as $content) {
            foreach ([0, 1, 7] as $minimum) {
                foreach ([1, 3, 8] as $multiple) {
                    foreach ([false, true] as $split) {
                        $rule = BuyingRule::of(Pack::of('case', $content), $minimum, $multiple, $split);
                        for ($need = 0; $need <= 100; $need += 3) {
                            $packs = $rule->packsFor($need);
                            self::assertNull(
                                $rule->objectionTo($packs),
                                sprintf('%d of %d, minimum %d, multiple %d', $need, $content, $minimum, $multiple),
                            );
                            // A split case is told to a thousandth of a pack; twelfths fall short of a unit by less
                            // than that.
                            self::assertTrue($rule->pack->toStockUnits($packs)->isGreaterThanOrEqualTo($need));
                        }
                    }
                }
            }
        }
    }

    public function testSaysWhatCouldBeBoughtInstead(): void
    {
        $rule = BuyingRule::of(Pack::of('case', 12), 4, 4);
        self::assertStringContainsString('at least 4', (string) $rule->objectionTo(3));
        self::assertStringContainsString('steps of 4 (case). Make it 8', (string) $rule->objectionTo(6));
        self::assertStringContainsString(
            'do not split a case',
            (string) BuyingRule::of(Pack::of('case', 12))->objectionTo('1.5'),
        );
        self::assertSame(
            'They sell whole ones only. Make it 3.',
            BuyingRule::of(Pack::of('each', 1))->objectionTo('2.5'),
        );
        self::assertNull($rule->objectionTo(0));
    }

    public function testPacksAreNamedAsPeopleSayThem(): void
    {
        self::assertSame('cases', Pack::of('case', 12)->named(48));
        self::assertSame('case', Pack::of('case', 12)->named('1.0'));
        self::assertSame('boxes', Pack::of('box', 10)->named(2));
        self::assertSame('each', Pack::of('each', 1)->named(20));
        self::assertSame('box × 1,000', Pack::of('box', 1000)->label());
        self::assertSame('each', Pack::of('each', 1)->label());
    }

    public function testAnEmptyPackIsRefused(): void
    {
        $this->expectException(InvalidValue::class);
        Pack::of('case', 0);
    }

    public function testANegativeMinimumIsRefused(): void
    {
        $this->expectExceptionMessage('“-1” is below zero');
        BuyingRule::of(Pack::of('case', 12), -1);
    }
}
