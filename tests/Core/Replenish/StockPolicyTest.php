<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\StockPolicy;

/** What is ordered at a position: by hand. */
final class StockPolicyTest extends TestCase
{
    /** @return iterable<string, array{StockPolicy, float, list<array{float, float}>}> position and what is ordered */
    public static function policies(): iterable
    {
        yield 'up to a level' => [StockPolicy::upTo(4.0, 10.0), 10.0, [
            [5.0, 0.0], [4.1, 0.0], [4.0, 6.0], [0.0, 10.0], [-3.0, 13.0],
        ]];
        yield 'always up to a level' => [StockPolicy::always(10.0), 10.0, [
            [12.0, 0.0], [10.0, 0.0], [9.5, 0.5], [3.0, 7.0], [-1.0, 11.0],
        ]];
        // As many lots as bring it above the point.
        yield 'in lots' => [StockPolicy::inLots(20.0, 8.0), 28.0, [
            [21.0, 0.0], [20.5, 0.0], [20.0, 8.0], [13.0, 8.0], [12.1, 8.0], [12.0, 16.0], [4.0, 24.0], [-1.0, 24.0],
        ]];
        yield 'point and level are one' => [StockPolicy::upTo(10.0, 10.0), 10.0, [
            [11.0, 0.0], [10.0, 0.0], [9.0, 1.0],
        ]];
    }

    /** @param list<array{float, float}> $orders */
    #[DataProvider('policies')]
    public function testWhatIsOrdered(StockPolicy $policy, float $highest, array $orders): void
    {
        foreach ($orders as [$position, $ordered]) {
            self::assertSame($ordered, $policy->orderAt($position), 'at '.$position);
        }
        self::assertSame($highest, $policy->highest());
    }

    public function testWhatCannotBeIsRefused(): void
    {
        foreach ([
            static fn () => StockPolicy::upTo(10.0, 9.9),
            static fn () => StockPolicy::inLots(20.0, 0.0),
            static fn () => StockPolicy::inLots(20.0, -1.0),
        ] as $make) {
            try {
                $make();
                self::fail('It was made.');
            } catch (InvalidValue $refused) {
                self::assertNotSame('', $refused->getMessage());
            }
        }
    }
}
