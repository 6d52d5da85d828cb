<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\InvalidValue;

/** On which weekdays, and until which hour, a supplier takes orders for the day; and when goods could be here. */
final readonly class OrderDays
{
    /** Nobody is shut for longer. */
    private const LOOK_AHEAD = 150;

    /**
     * @param non-empty-list<int>         $weekdays   ISO 8601, 1 is Monday
     * @param list<array{string, string}> $theirHolidays first and last day, as 2026-12-24
     * @param list<array{string, string}> $ourHolidays
     */
    private function __construct(
        public array $weekdays,
        public string $cutOff,
        private array $theirHolidays,
        private array $ourHolidays,
    ) {
    }

    /**
     * @param list<int>                   $weekdays      ISO 8601 weekdays, 1 (Monday) to 7; none means Monday to Friday
     * @param string                      $cutOff        "14:00"
     * @param list<array{string, string}> $theirHolidays days on which the supplier is shut: first and last, as
     *      2026-12-24
     * @param list<array{string, string}> $ourHolidays   days on which nobody here takes deliveries
     *
     * @throws InvalidValue
     */
    public static function of(array $weekdays, string $cutOff, array $theirHolidays = [], array $ourHolidays = []): self
    {
        if (1 !== preg_match('/^([01]\d|2[0-3]):[0-5]\d$/', $cutOff)) {
            throw InvalidValue::because(sprintf('“%s” is not an hour; expected one such as 14:00.', $cutOff));
        }
        foreach ($weekdays as $day) {
            if ($day < 1 || $day > 7) {
                throw InvalidValue::because(sprintf('%d is not a weekday; expected 1 (Monday) to 7.', $day));
            }
        }
        sort($weekdays);

        return new self(
            [] === $weekdays ? [1, 2, 3, 4, 5] : array_values(array_unique($weekdays)),
            $cutOff,
            $theirHolidays,
            $ourHolidays,
        );
    }

    /** The next moment an order must be out by, today's if it has not passed. */
    public function nextCutOff(\DateTimeImmutable $now): \DateTimeImmutable
    {
        for ($ahead = 0; $ahead <= self::LOOK_AHEAD; ++$ahead) {
            $at = $now
                ->modify(sprintf('+%d days', $ahead))
                ->setTime((int) substr($this->cutOff, 0, 2), (int) substr($this->cutOff, 3));
            if (
                $at >= $now
                && in_array((int) $at->format('N'), $this->weekdays, true)
                && !self::isShut($this->theirHolidays, $at)
            ) {
                return $at;
            }
        }
        throw InvalidValue::because(sprintf('The supplier takes no order in the next %d days.', self::LOOK_AHEAD));
    }

    /** Days from one chance to order to the next, the longest gap in a usual week. */
    public function reviewDays(): int
    {
        $gap = 0;
        foreach ($this->weekdays as $i => $day) {
            $next = $this->weekdays[$i + 1] ?? $this->weekdays[0] + 7;
            $gap = max($gap, $next - $day);
        }

        return $gap;
    }

    /** Days from the next chance to order to the one after it, never less than the longest gap in a usual week. */
    public function reviewDaysFrom(\DateTimeImmutable $now): int
    {
        $first = $this->nextCutOff($now);
        $second = $this->nextCutOff($first->modify('+1 minute'));

        return max($this->reviewDays(), (int) $first->setTime(0, 0)->diff($second->setTime(0, 0))->days);
    }

    /**
     * The first day on or after cut-off plus lead time on which somebody is here; days on which the supplier is shut do
     * not count.
     */
    public function arrival(\DateTimeImmutable $now, int $leadDays): \DateTimeImmutable
    {
        $day = $this->nextCutOff($now)->setTime(0, 0);
        for ($worked = 0; $worked < $leadDays;) {
            $day = $day->modify('+1 day');
            $worked += self::isShut($this->theirHolidays, $day) ? 0 : 1;
        }
        while ((int) $day->format('N') > 5 || self::isShut($this->ourHolidays, $day)) {
            $day = $day->modify('+1 day');
        }

        return $day;
    }

    /** Days by which holidays lengthen a lead time that begins at the next cut-off. */
    public function holidaysWithin(\DateTimeImmutable $now, int $leadDays): int
    {
        $usual = self::of($this->weekdays, $this->cutOff)->arrival($this->nextCutOff($now), $leadDays);

        return max(0, (int) $usual->diff($this->arrival($now, $leadDays))->format('%r%a'));
    }

    /** The next chance to order, of what takes so many days to come. */
    public function chance(\DateTimeImmutable $now, int $leadDays): OrderChance
    {
        return new OrderChance(
            $this->arrival($now, $leadDays),
            $this->holidaysWithin($now, $leadDays),
            $this->reviewDaysFrom($now),
        );
    }

    /** @param list<array{string, string}> $holidays */
    private static function isShut(array $holidays, \DateTimeImmutable $day): bool
    {
        $day = $day->format('Y-m-d');
        foreach ($holidays as [$first, $last]) {
            if ($day >= $first && $day <= $last) {
                return true;
            }
        }

        return false;
    }
}
