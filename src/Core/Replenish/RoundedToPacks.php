<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Quantity\BuyingRule;

/** What of a requirement can be bought: whole packs, and up to a lower price where that pays. */
final readonly class RoundedToPacks
{
    /** Packs the requirement comes to. */
    public BigDecimal $needed;
    /** The same before rounding, to a tenth. */
    public BigDecimal $exact;
    /** Stock units at which the lower price begins, where it is worth buying up to it. */
    public ?BigDecimal $upToBreak;
    /** What to buy. */
    public BigDecimal $packs;

    public function __construct(Need $need, Requirement $requirement, float $reach)
    {
        $rule = $need->wholePacks && $need->rule->split
            ? BuyingRule::of($need->rule->pack, $need->rule->minimum, $need->rule->multiple)
            : $need->rule;
        $this->needed = $rule->packsFor($requirement->ordered);
        $this->exact = $rule->pack->toPacks($requirement->ordered)->toScale(1, RoundingMode::HalfUp);
        $break = $this->needed->isPositive()
            ? self::worthwhileBreak($need, $rule->pack->toStockUnits($this->needed)->toFloat(), $reach)
            : null;
        $this->upToBreak = null === $break ? null : $need->unit->count($break, RoundingMode::Up);
        $this->packs = null === $break ? $this->needed : $rule->packsFor(number_format($break, 3, '.', ''));
    }

    /** @return float|null stock units from which a price break holds that is cheaper to reach than not to */
    private static function worthwhileBreak(Need $need, float $units, float $reach): ?float
    {
        $economics = $need->economics;
        if ($economics->incremental || $need->policy->kind->hasMaximum()) {
            // A break for what goes beyond it has no edge to reach: one more unit costs the same on either side, or
            // less.
            return null;
        }
        $perDay = $need->forecast->perDay();
        $longest = min(Requirement::LONGEST_AHEAD_DAYS, $economics->shelfDays ?? Requirement::LONGEST_AHEAD_DAYS);
        $price = null;
        foreach ($economics->breaks as [$from, $breakPrice]) {
            if ($from <= $units || null === $price) {
                $price = $breakPrice;
                continue;
            }
            $more = $from - $units;
            $days = $perDay > 0 ? $more / $perDay : INF;
            // The surplus waits until this order is used up, then half as long as it lasts itself.
            $holding =
                (($more * $breakPrice * $economics->holdingShare) / 365) * ($units / max($perDay, 1e-9) + $days / 2);
            if ($days + $reach <= $longest && $from * $breakPrice + $holding < $units * $price + $more * $price) {
                return $from;
            }
        }

        return null;
    }
}
