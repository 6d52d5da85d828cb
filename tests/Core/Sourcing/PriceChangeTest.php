<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Sourcing\PriceChange;

final class PriceChangeTest extends TestCase
{
    /** @return iterable<string, array{string, string|null, float|null}> */
    public static function moves(): iterable
    {
        yield 'dearer' => ['11', '10', 10.0];
        yield 'cheaper' => ['9', '10', -10.0];
        yield 'half a percent' => ['201', '200', 0.5];
        yield 'half a percent less' => ['199', '200', -0.5];
        yield 'hardly' => ['10.04', '10', null];
        yield 'the same' => ['10', '10', null];
        yield 'twice' => ['20', '10', 100.0];
        yield 'nothing before' => ['10', null, null];
        yield 'a gift before' => ['10', '0', null];
        yield 'a gift now' => ['0', '10', -100.0];
    }

    #[DataProvider('moves')]
    public function testInPercentWhereItIsWorthAWord(string $now, ?string $last, ?float $percent): void
    {
        $moved = PriceChange::percent(BigDecimal::of($now), null === $last ? null : BigDecimal::of($last));
        null === $percent ? self::assertNull($moved) : self::assertEqualsWithDelta($percent, $moved, 1e-9);
    }

    /** @return iterable<string, array{string, string|null, string|null}> */
    public static function slips(): iterable
    {
        yield 'four times' => ['40', '10', '4 times the last price paid'];
        yield 'a cent less' => ['39.99', '10', null];
        yield 'ten times' => ['100', '10', '10 times the last price paid'];
        yield 'nearly five' => ['49.7', '10', '5 times the last price paid'];
        yield 'four and a half' => ['45', '10', '4.5 times the last price paid'];
        yield 'eleven and a half' => ['115.6', '10', '12 times the last price paid'];
        yield 'a quarter' => ['2.50', '10', '25 % of the last price paid'];
        yield 'a cent more' => ['2.51', '10', null];
        yield 'a twentieth' => ['0.55', '10', '5.5 % of the last price paid'];
        yield 'for nothing' => ['0', '10', 'the price is 0'];
        yield 'for nothing, at first' => ['0', null, 'the price is 0'];
        yield 'at first' => ['10', null, null];
        yield 'after a gift' => ['10', '0', null];
    }

    #[DataProvider('slips')]
    public function testWhatLooksLikeASlipSaysWhy(string $now, ?string $last, ?string $words): void
    {
        self::assertSame(
            $words,
            PriceChange::doubt(BigDecimal::of($now), null === $last ? null : BigDecimal::of($last)),
        );
    }
}
