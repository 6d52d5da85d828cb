<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Projection;

/** The stock of one item at one place, day by day, as the chart beside it draws it. */
final readonly class TimePhased
{
    /**
     * @param list<PlannedDemand> $planned
     * @param string              $proposed words for the proposal, on the day it would come
     *
     * @return list<PhasedDay>
     */
    public static function of(
        Projection $projection,
        Coming $coming,
        array $planned,
        string $proposed,
        \DateTimeImmutable $today,
    ): array {
        $from = [];
        foreach ($coming->countedOn() as $order) {
            $from[$order->dayFrom($today)][] = $order->number;
        }
        foreach ($planned as $one) {
            $from[max(0, (int) $today->diff($one->day->setTime(0, 0))->format('%r%a'))][] = $one->name;
        }
        $days = [];
        foreach ($projection->days as $ahead => $day) {
            if ($day->proposed > 0) {
                $from[$ahead][] = $proposed;
            }
            $days[] = new PhasedDay(
                $today->modify(sprintf('+%d days', $ahead)),
                $day->in + $day->proposed,
                $day->out,
                $day->with,
                $day->without,
                $from[$ahead] ?? [],
            );
        }

        return $days;
    }

    /**
     * @param list<PhasedDay> $days
     *
     * @return list<list<string>> for a file, its first row naming the columns
     */
    public static function table(array $days): array
    {
        $figure = static fn (float $units): string => (string) round($units, 2);

        return [
            ['day', 'in', 'out', 'left', 'left_if_nothing_is_ordered', 'from'],
            ...array_map(
                static fn (PhasedDay $day): array => [
                    $day->day->format('Y-m-d'),
                    $figure($day->in),
                    $figure($day->out),
                    $figure($day->left),
                    $figure($day->leftWithout),
                    implode(', ', $day->from),
                ],
                $days,
            ),
        ];
    }
}
