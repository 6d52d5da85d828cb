<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Ordering\SinceLastOrder;

final class SinceLastOrderTest extends TestCase
{
    private const FACTS = ['contact' => 'Ilse', 'email' => 'a@x.example', 'address' => 'Here 1', 'terms' => 'net 30'];

    /**
     * @param array<string, string> $was
     *
     * @return list<string>
     */
    private static function since(array $was, string $rateWas = '4.20', string $rateIs = '4.20'): array
    {
        return SinceLastOrder::differences($was, self::FACTS, BigDecimal::of($rateWas), BigDecimal::of($rateIs));
    }

    public function testAChangedEmailIsNamedFirst(): void
    {
        self::assertSame([], self::since(self::FACTS));
        self::assertSame([], self::since([]), 'nothing was kept, nothing differs');
        self::assertSame(
            ['Email was b@x.example', 'Terms was net 14'],
            self::since(['email' => 'b@x.example', 'terms' => 'net 14'] + self::FACTS),
        );
    }

    public function testARateThatMovedMakesTheirCurrencyDearerOrCheaper(): void
    {
        self::assertSame([], self::since([], '4.20', '4.12'), '1.9 %');
        self::assertSame(['Their currency is 2.4 % dearer than'], self::since([], '4.20', '4.10'));
        self::assertSame(['Their currency is 4.5 % cheaper than'], self::since([], '4.20', '4.40'));
    }
}
