<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk\Drawing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Desk\Drawing\PriceLine;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrice;
use TallBarrel\Store\Supplier\Supplier;

/** What a pack cost over time, as points. */
final class PriceLineTest extends TestCase
{
    private const TODAY = '2026-11-23';

    /** @param array<string, string> $prices by day, the latest first; "" for what was before */
    private function line(array $prices, string $now): ?PriceLine
    {
        $offer = new Offer(
            new Supplier('S', 'S', 'EUR'),
            new Item('I', 'I', '', Unit::Each),
            '',
            'case',
            BigDecimal::of(12),
        );
        $history = [];
        foreach ($prices as $day => $price) {
            $history[] = new OfferPrice(
                $offer,
                '' === $day ? null : new \DateTimeImmutable($day),
                PriceBreaks::read($price),
                'test',
                $day <= self::TODAY,
            );
        }

        return PriceLine::of($history, PriceBreaks::read($now), [], new \DateTimeImmutable(self::TODAY));
    }

    public function testNothingIsDrawnWhereNothingIsKnown(): void
    {
        self::assertNull($this->line([], '10'));
    }

    public function testThePastIsSolidAndWhatIsToComeGoesOnFromToday(): void
    {
        $line = $this->line(['2027-01-02' => '12', '2026-10-24' => '10', '' => '8'], '10');
        self::assertNotNull($line);
        $points = static fn (string $text): array => array_map(
            static fn (string $point): array => array_map(floatval(...), explode(',', $point)),
            explode(' ', $text),
        );
        $past = $points($line->steps);
        $coming = $points($line->coming);
        self::assertCount(4, $past, 'along, up, along');
        self::assertSame($past[1][0], $past[2][0], 'upright where the price changes');
        self::assertGreaterThan($past[2][1], $past[1][1], 'dearer is higher');
        self::assertSame([$past[3], $line->todayX], [$coming[0], $past[3][0]], 'one line, from today on to come');
        self::assertSame([298.0, $coming[2][1]], $coming[3]);
        self::assertSame(['12.00', '8.00'], array_column($line->up, 1));
    }

    public function testWithoutAChangeToComeItEndsToday(): void
    {
        $line = $this->line(['2026-10-24' => '10', '' => '10'], '10');
        self::assertSame(
            ['', 'today', 298.0, 1],
            [$line?->coming, $line?->last, $line?->todayX, count($line->up ?? [])],
        );
    }
}
