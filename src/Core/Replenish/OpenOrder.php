<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** What is still to come on one line of a sent order. */
final readonly class OpenOrder
{
    /** An order later than this is taken for forgotten: it is shown, but no longer counted on. */
    public const FORGOTTEN_AFTER_DAYS = 14;

    public function __construct(public string $number, public BigDecimal $stockUnits, public \DateTimeImmutable $due)
    {
    }

    public function daysLate(\DateTimeImmutable $today): int
    {
        return $this->due < $today ? (int) $this->due->diff($today)->days : 0;
    }

    /**
     * When what is counted on arrives: what is late is expected tomorrow, what is forgotten is left out.
     *
     * @param list<self> $orders
     *
     * @return array<int, float> stock units by day from today
     */
    public static function schedule(array $orders, \DateTimeImmutable $today): array
    {
        $coming = [];
        foreach ($orders as $order) {
            if ($order->countsOn($today)) {
                $day = max(1, (int) $today->diff($order->due)->format('%r%a'));
                $coming[$day] = ($coming[$day] ?? 0.0) + $order->stockUnits->toFloat();
            }
        }

        return $coming;
    }

    public function countsOn(\DateTimeImmutable $today): bool
    {
        return $this->daysLate($today) <= self::FORGOTTEN_AFTER_DAYS;
    }
}
