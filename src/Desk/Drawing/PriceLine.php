<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Desk\Shell\Format;
use TallBarrel\Store\Offer\OfferPrice;

/**
 * What a pack cost over time, 304 by 110: the standing price as steps, what was paid as dots, what is to come dashed.
 */
final readonly class PriceLine
{
    private const LEFT = 44.0;
    private const RIGHT = 298.0;
    private const TOP = 10.0;
    private const BOTTOM = 84.0;

    /**
     * @param string                                         $steps  points of the line up to today
     * @param string                                         $coming points from today on
     * @param list<array{x: float, y: float, words: string}> $dots
     * @param list<array{float, string}>                     $up     y and price
     */
    private function __construct(
        public string $steps,
        public string $coming,
        public array $dots,
        public array $up,
        public float $todayX,
        public string $first,
        public string $last,
    ) {
    }

    /**
     * @param list<OfferPrice>                                                       $history latest first
     * @param list<array{day: string, price: string, number: string, packs: string}> $paid
     *
     * @return self|null null where nothing is known but today's price
     */
    public static function of(array $history, PriceBreaks $now, array $paid, \DateTimeImmutable $today): ?self
    {
        $dated = array_values(array_filter($history, static fn (OfferPrice $price): bool => null !== $price->fromDay));
        if ([] === $dated && [] === $paid) {
            return null;
        }
        $day = static fn (string $day): int => (int) $today->diff(new \DateTimeImmutable($day))->format('%r%a');
        $first = static fn (PriceBreaks $prices): float => $prices->steps[0]['price']->toFloat();
        $changes = array_reverse(
            array_map(
                static fn (OfferPrice $price): array => [
                    $day($price->fromDay?->format('Y-m-d') ?? ''),
                    $first($price->prices()),
                ],
                $dated,
            ),
        );
        $before =
            array_values(array_filter($history, static fn (OfferPrice $price): bool => null === $price->fromDay))[0] ??
            null;
        $dots = array_map(
            static fn (array $one): array => [$day($one['day']), (float) $one['price'], $one['number']],
            $paid,
        );
        $begin = min([
            -90,
            ...array_map(static fn (array $change): int => $change[0] - 20, $changes),
            ...array_column($dots, 0),
        ]);
        $end = max([0, ...array_map(static fn (array $change): int => $change[0] > 0 ? $change[0] + 20 : 0, $changes)]);
        $level = null !== $before ? $first($before->prices()) : ([] === $changes ? $first($now) : $changes[0][1]);
        $all = [$level, $first($now), ...array_column($changes, 1), ...array_column($dots, 1)];
        [$low, $high] = [min($all), max($all)];
        $room = max(0.05 * $high, $high - $low, 0.01);
        [$low, $high] = [$low - 0.15 * $room, $high + 0.15 * $room];
        $x = static fn (int $day): float => round(
            self::LEFT + ((self::RIGHT - self::LEFT) * ($day - $begin)) / max(1, $end - $begin),
            1,
        );
        $y = static fn (float $price): float => round(
            self::BOTTOM - ((self::BOTTOM - self::TOP) * ($price - $low)) / ($high - $low),
            1,
        );
        $past = self::walk(
            array_filter($changes, static fn (array $change): bool => $change[0] <= 0),
            $begin,
            0,
            $level,
        );
        $coming =
            $end > 0
                ? self::walk(
                    array_filter($changes, static fn (array $change): bool => $change[0] > 0),
                    0,
                    $end,
                    $past[count($past) - 1][1],
                )
                : [];

        return new self(
            self::points($past, $x, $y),
            self::points($coming, $x, $y),
            array_map(
                static fn (array $dot): array => ['x' => $x($dot[0]), 'y' => $y($dot[1]), 'words' => $dot[2]],
                $dots,
            ),
            [
                [$y(max($all)), Format::number(max($all), 2)],
                ...max($all) - min($all) > 0.004 ? [[$y(min($all)), Format::number(min($all), 2)]] : [],
            ],
            $x(0),
            $today->modify($begin.' days')->format('M Y'),
            $end > 0 ? $today->modify('+'.$end.' days')->format('j M Y') : 'today',
        );
    }

    /**
     * @param array<array{int, float}> $changes day and price, in order
     *
     * @return non-empty-list<array{int, float}>
     */
    private static function walk(array $changes, int $from, int $to, float $level): array
    {
        $places = [[$from, $level]];
        foreach ($changes as [$on, $price]) {
            array_push($places, [$on, $level], [$on, $price]);
            $level = $price;
        }
        $places[] = [$to, $level];

        return $places;
    }

    /**
     * @param list<array{int, float}>  $places
     * @param callable(int): float   $x
     * @param callable(float): float $y
     */
    private static function points(array $places, callable $x, callable $y): string
    {
        return implode(' ', array_map(static fn (array $place): string => $x($place[0]).','.$y($place[1]), $places));
    }
}
