<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk\Shell;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use TallBarrel\Desk\Shell\Format;

final class FormatTest extends TestCase
{
    #[TestWith(['18.853333', '18.85'])]
    #[TestWith(['0.585871', '0.5859'])]
    #[TestWith(['0.0012345', '0.001235'])]
    #[TestWith(['0.5', '0.50'])]
    #[TestWith(['9.8', '9.80'])]
    #[TestWith(['1.2345', '1.235'])]
    #[TestWith(['12345.678', '12,345.68'])]
    #[TestWith(['-3.14159', '-3.142'])]
    #[TestWith(['0', '0.00'])]
    public function testAPriceShowsWhatTheEyeNeeds(string $price, string $shown): void
    {
        self::assertSame($shown, Format::shortPrice($price));
    }

    public function testAWholePriceHasAllItsDecimals(): void
    {
        self::assertSame('18.853333', Format::price(BigDecimal::of('18.853333')));
        self::assertSame('9.80', Format::price(BigDecimal::of('9.8')));
        self::assertSame('–', Format::shortPrice(null));
    }
}
