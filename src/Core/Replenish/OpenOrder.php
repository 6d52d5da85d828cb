<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** What is still to come on one line of a sent order; or what is here already and not free yet. */
final readonly class OpenOrder
{
    /**
     * An order later than this is taken for forgotten: it is shown, but no longer counted on, unless a person says so.
     */
    public const FORGOTTEN_AFTER_DAYS = 14;

    /** @param bool|null $verdict whether a person counts on it although it is late; null where nobody has said */
    public function __construct(
        public string $number,
        public BigDecimal $stockUnits,
        public \DateTimeImmutable $due,
        public ?bool $verdict = null,
        public bool $isHere = false,
    ) {
    }

    /** What is ours and still to be looked at; no supplier can bring it sooner. */
    public static function inInspection(BigDecimal $stockUnits, \DateTimeImmutable $free): self
    {
        return new self('In inspection', $stockUnits, $free, isHere: true);
    }

    public function daysLate(\DateTimeImmutable $today): int
    {
        return $this->due < $today ? (int) $this->due->diff($today)->days : 0;
    }

    /** The day from today on which it is expected: what is late may come tomorrow. */
    public function dayFrom(\DateTimeImmutable $today): int
    {
        return max(1, (int) $today->diff($this->due)->format('%r%a'));
    }

    public function countsOn(\DateTimeImmutable $today): bool
    {
        return 0 === $this->daysLate($today)
            || ($this->verdict ?? $this->daysLate($today) <= self::FORGOTTEN_AFTER_DAYS);
    }
}
