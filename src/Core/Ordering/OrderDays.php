<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\InvalidValue;

/** On which weekdays, and until which hour, a supplier takes orders for the day; and when goods could be here. */
final readonly class OrderDays
{
    /** @param non-empty-list<int> $weekdays ISO 8601, 1 is Monday */
    private function __construct(public array $weekdays, public string $cutOff)
    {
    }

    /**
     * @param list<int> $weekdays ISO 8601 weekdays, 1 (Monday) to 7; none means Monday to Friday
     * @param string    $cutOff   "14:00"
     *
     * @throws InvalidValue
     */
    public static function of(array $weekdays, string $cutOff): self
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

        return new self([] === $weekdays ? [1, 2, 3, 4, 5] : array_values(array_unique($weekdays)), $cutOff);
    }

    /** The next moment an order must be out by, today's if it has not passed. */
    public function nextCutOff(\DateTimeImmutable $now): \DateTimeImmutable
    {
        for ($ahead = 0; $ahead <= 7; ++$ahead) {
            $at = $now->modify(sprintf('+%d days', $ahead))->setTime((int) substr($this->cutOff, 0, 2), (int) substr($this->cutOff, 3));
            if ($at >= $now && in_array((int) $at->format('N'), $this->weekdays, true)) {
                return $at;
            }
        }
        throw new \LogicException('Every week has an order day.');
    }

    /** Days from one chance to order to the next, the longest gap in the week. */
    public function reviewDays(): int
    {
        $gap = 0;
        foreach ($this->weekdays as $i => $day) {
            $next = $this->weekdays[$i + 1] ?? $this->weekdays[0] + 7;
            $gap = max($gap, $next - $day);
        }

        return $gap;
    }

    /** The first weekday on or after cut-off plus lead time. */
    public function arrival(\DateTimeImmutable $now, int $leadDays): \DateTimeImmutable
    {
        $day = $this->nextCutOff($now)->setTime(0, 0)->modify(sprintf('+%d days', $leadDays));
        while ((int) $day->format('N') > 5) {
            $day = $day->modify('+1 day');
        }

        return $day;
    }
}
