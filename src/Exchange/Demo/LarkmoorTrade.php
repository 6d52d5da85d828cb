<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

/**
 * Three years of trade in one item at one site: customers come by season, weekday and fair; the shop reorders when its
 * supplier's order day comes round, sometimes forgets, and sometimes runs out.
 *
 * Days are counted backwards: 1 is yesterday.
 */
final class LarkmoorTrade
{
    public const DAYS = 1120;
    /** Months January to December against the year's mean. */
    private const SEASONS = [
        'flat' => [1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1],
        'spring' => [0.45, 0.7, 1.3, 1.9, 2.0, 1.6, 1.1, 0.7, 0.6, 0.5, 0.55, 0.6],
        'harvest' => [0.55, 0.5, 0.55, 0.65, 0.9, 1.2, 1.7, 2.0, 1.5, 0.9, 0.8, 0.75],
        'feed' => [0.7, 1.1, 1.2, 0.7, 0.3, 0.2, 0.4, 1.3, 2.5, 2.0, 0.9, 0.7],
        'treat' => [1.2, 0.4, 0.5, 0.6, 0.5, 0.5, 0.9, 2.4, 2.1, 0.8, 0.7, 1.4],
        'xmas' => [0.6, 0.6, 0.7, 0.7, 0.7, 0.7, 0.8, 0.8, 1.0, 1.5, 2.3, 1.6],
        'spare' => [0.8, 0.9, 1.1, 1.2, 1.2, 1.1, 1.2, 1.2, 1, 0.8, 0.8, 0.7],
    ];

    /** @var array<int, int> units sold by day; days without a sale are missing */
    public array $sold = [];
    /** @var array<int, true> days with nothing on the shelf */
    public array $out = [];
    /** @var array<int, int> packs ordered, by the day of ordering */
    public array $ordered = [];
    /** @var array<int, int> stock at the end of a day, for the ledger's first day */
    public array $closing = [];

    /**
     * @param array<int, int> $arrivals day of ordering => day of arrival; 0 or below has not arrived
     */
    public function __construct(
        private readonly string $seed,
        private readonly float $weekly,
        private readonly string $season,
        private readonly bool $fairs,
        private readonly int $packContent,
        private readonly int $multiple,
        private readonly int $leadDays,
        private readonly int $rhythm,
        private readonly \DateTimeImmutable $today,
        private readonly array $arrivals,
    ) {
    }

    public function run(): void
    {
        $chance = new Chance($this->seed);
        $stock = (int) ceil($this->weekly * 5) + $this->packContent;
        $coming = [];
        $onOrder = 0;
        for ($day = self::DAYS; $day >= 1; --$day) {
            $date = $this->today->modify(-$day.' days');
            [$month, $weekday, $dayOfMonth] = array_map(intval(...), explode(' ', $date->format('n N j')));
            $arrived = $coming[$day] ?? 0;
            $stock += $arrived;
            $onOrder -= $arrived;
            $mean = $this->mean($day, $month, $dayOfMonth) * [0, 1.05, 0.9, 0.95, 1.0, 1.25, 1.55, 0.3][$weekday];
            if ($this->fairs && 6 === $weekday && $dayOfMonth <= 7 && in_array($month, [5, 6, 9, 12], true)) {
                $mean *= 3.2;
            }
            $wanted = $chance->poisson($mean * exp(0.28 * $chance->normal() - 0.04));
            if ($stock <= 0 && $mean > 0) {
                $this->out[$day] = true;
            }
            $sold = min($wanted, max(0, $stock));
            if ($sold > 0) {
                $this->sold[$day] = $sold;
                $stock -= $sold;
            }
            if (isset($this->arrivals[$day])) {
                $perDay = max($this->mean($day, $month, $dayOfMonth), $this->weekly / 21);
                $trigger = $perDay * ($this->leadDays + 1.35 * $this->rhythm) + 1.6 * sqrt($this->weekly) + 1;
                if ($stock + $onOrder <= $trigger && $chance->share() > 0.06) {
                    $size = $this->packContent * $this->multiple;
                    $packs =
                        $this->multiple * max(1, (int) ceil(($trigger + $perDay * 18 - $stock - $onOrder) / $size));
                    $this->ordered[$day] = $packs;
                    $onOrder += $packs * $this->packContent;
                    $arrival = $this->arrivals[$day];
                    if ($arrival >= 1) {
                        $coming[$arrival] = ($coming[$arrival] ?? 0) + $packs * $this->packContent;
                    }
                }
            }
            $this->closing[$day] = $stock;
        }
    }

    private function mean(int $day, int $month, int $dayOfMonth): float
    {
        $factors = self::SEASONS[$this->season];
        // Between the middles of two months the season glides.
        $next = $dayOfMonth > 15 ? $month % 12 : ($month + 10) % 12;
        $share = abs($dayOfMonth - 15) / 31;
        $season = $factors[$month - 1] * (1 - $share) + $factors[$next] * $share;
        $growth = 1.08 - (0.16 * $day) / self::DAYS;

        return ($this->weekly / 7) * $season * $growth;
    }
}
