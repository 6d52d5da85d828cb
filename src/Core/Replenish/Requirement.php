<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/** How many stock units to order, before rounding to what can be bought. */
final readonly class Requirement
{
    /** Longest time anything is bought ahead. */
    public const LONGEST_AHEAD_DAYS = 182;

    /** The position has fallen to where the policy says so. */
    public bool $below;
    /** Ordered now: by the policy, or because somebody asked for it. */
    public bool $due;
    /** What is wanted beyond what there is, 0 or more. */
    public BigDecimal $missing;
    /** The policy's lot, where it has one and it is due. */
    public ?BigDecimal $lot;
    /** The missing in whole lots; as it is where there is no lot. */
    public BigDecimal $inLots;
    /** @var array{float, \DateTimeImmutable}|null a price rise before which this is the last chance */
    public ?array $rise;
    /** Bought ahead of it. */
    public BigDecimal $ahead;
    /** Left out, so that all of it sells while it keeps. */
    public BigDecimal $tooMuch;
    public BigDecimal $ordered;

    public function __construct(Need $need, Levels $levels, StockPosition $position, bool $askedFor)
    {
        $unit = $need->unit;
        $zero = BigDecimal::zero();
        $this->below = $position->isBelow($need->policy->kind);
        $this->due = $this->below || ($askedFor && $position->target->isPositive());
        $this->missing = BigDecimal::max($position->target, $zero);
        $this->lot = $this->due && null !== $levels->lot
            ? BigDecimal::max($unit->count($levels->lot, RoundingMode::Up), BigDecimal::one())
            : null;
        $this->inLots = null === $this->lot
            ? $this->missing
            : $this->lot->multipliedBy(
                BigDecimal::max($this->missing->dividedBy($this->lot, 0, RoundingMode::Up), BigDecimal::one()),
            );
        $ordered = $this->due ? $this->inLots : $zero;
        $this->rise = self::lastChanceBeforeRise($need);
        $ahead = null === $this->rise
            ? $zero
            : $unit->count(self::boughtAhead($need, $position->reach, $this->rise), RoundingMode::Down);
        // Bought ahead without being due, it must be worth a pack.
        $pays = $this->due
            || $need->rule->pack->content->isLessThanOrEqualTo($ahead->plus($position->target));
        $this->ahead = $ahead->isPositive() && $pays ? $ahead : $zero;
        if ($this->ahead->isPositive()) {
            $ordered = $this->due
                ? $ordered->plus($this->ahead)
                : BigDecimal::max($this->ahead->plus($position->target), $zero);
        }
        $most = $ordered->isPositive() ? self::sellsWhileItKeeps($need, $position) : null;
        $this->tooMuch = null === $most ? $zero : BigDecimal::max($ordered->minus($most), $zero);
        $this->ordered = $ordered->minus($this->tooMuch);
    }

    /** Null where it keeps for ever. */
    private static function sellsWhileItKeeps(Need $need, StockPosition $position): ?BigDecimal
    {
        $shelfDays = $need->economics->shelfDays;
        if (null === $shelfDays) {
            return null;
        }
        $days = $need->leadTime->days + $shelfDays;
        $sells = $need->forecast->over($days) + PlannedDemand::until($need->planned, $need->today, $days);

        return BigDecimal::max(
            $need->unit->count($sells, RoundingMode::Down)->minus($position->free)->minus($position->coming),
            BigDecimal::zero(),
        );
    }

    /** @return array{float, \DateTimeImmutable}|null the rise, if the next chance to order comes after it */
    private static function lastChanceBeforeRise(Need $need): ?array
    {
        $rise = $need->economics->priceRise;

        return null !== $rise
            && $need->policy->mayGoBeyond()
            && $rise[0] > 0
            && $rise[1] > $need->today
            && $rise[1] <= $need->today->modify(sprintf('+%d days', $need->reviewDays))
            ? $rise
            : null;
    }

    /**
     * Bought ahead as long as holding it costs less than the rise: for (c₂ − c₁) / (c₁ r) years.
     * Source: Silver, Pyke & Peterson, section 5.6 on announced price increases, without its smaller terms in the lot
     * size.
     *
     * @param array{float, \DateTimeImmutable} $rise
     */
    private static function boughtAhead(Need $need, float $reach, array $rise): float
    {
        $share = $need->economics->holdingShare;
        $days = $share > 0 ? min(self::LONGEST_AHEAD_DAYS, (365 * $rise[0]) / $share) : 0.0;

        return max(0.0, $need->forecast->over($reach + $days) - $need->forecast->over($reach));
    }
}
