<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/**
 * What is still to come of one item to one site, and which of it planning counts on: all that is not late, what is late
 * by no more than OpenOrder::FORGOTTEN_AFTER_DAYS, and beyond that what a person says. The one place that tells.
 */
final readonly class Coming
{
    /** @param list<OpenOrder> $orders by the day they are due */
    private function __construct(public array $orders, public \DateTimeImmutable $today)
    {
    }

    /** @param list<OpenOrder> $orders */
    public static function of(array $orders, \DateTimeImmutable $today): self
    {
        usort($orders, static fn (OpenOrder $a, OpenOrder $b): int => $a->due <=> $b->due);

        return new self($orders, $today);
    }

    /** @param list<OpenOrder> $more */
    public function with(array $more): self
    {
        return self::of([...$this->orders, ...$more], $this->today);
    }

    public static function nothing(\DateTimeImmutable $today): self
    {
        return new self([], $today);
    }

    /** @return list<OpenOrder> */
    public function countedOn(): array
    {
        return array_values(array_filter($this->orders, fn (OpenOrder $order): bool => $order->countsOn($this->today)));
    }

    /** @return list<OpenOrder> late for so long that nobody counts on them, or because a person said so */
    public function givenUp(): array
    {
        return array_values(
            array_filter($this->orders, fn (OpenOrder $order): bool => !$order->countsOn($this->today)),
        );
    }

    /** @return list<OpenOrder> */
    public function late(): array
    {
        return array_values(
            array_filter($this->orders, fn (OpenOrder $order): bool => $order->daysLate($this->today) > 0),
        );
    }

    /** @return list<OpenOrder> counted on, but only after so many days; what is late may come tomorrow */
    public function after(float $days): array
    {
        return array_values(
            array_filter(
                $this->countedOn(),
                fn (OpenOrder $order): bool => $order->dayFrom($this->today) > max(1.0, $days),
            ),
        );
    }

    /** Stock units that are counted on. */
    public function units(): BigDecimal
    {
        return $this->within(INF);
    }

    /** Stock units that are counted on within so many days. */
    public function within(float $days): BigDecimal
    {
        $units = BigDecimal::zero();
        foreach ($this->countedOn() as $order) {
            if ($order->dayFrom($this->today) <= max(1.0, $days)) {
                $units = $units->plus($order->stockUnits);
            }
        }

        return $units;
    }

    /** @return array<int, float> stock units that are counted on, by day from today */
    public function schedule(): array
    {
        $coming = [];
        foreach ($this->countedOn() as $order) {
            $day = $order->dayFrom($this->today);
            $coming[$day] = ($coming[$day] ?? 0.0) + $order->stockUnits->toFloat();
        }

        return $coming;
    }
}
