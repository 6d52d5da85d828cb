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
    /**
     * What buying up to it saves on the price of all that is bought, and what holding the surplus costs; home currency.
     */
    public float $saves;
    public float $costs;
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
        $this->upToBreak = null === $break ? null : $need->unit->count($break[0], RoundingMode::Up);
        $this->packs = null === $break ? $this->needed : $rule->packsFor(number_format($break[0], 3, '.', ''));
        $this->saves = $break[1] ?? 0.0;
        $this->costs = $break[2] ?? 0.0;
    }

    /**
     * @return array{float, float, float}|null stock units from which a price break holds that is cheaper to reach than
     *      not
     *      to, what it saves, what holding the surplus costs
     */
    private static function worthwhileBreak(Need $need, float $units, float $reach): ?array
    {
        $economics = $need->economics;
        if ($economics->incremental || !$need->policy->mayGoBeyond()) {
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
            $saves = $from * ($price - $breakPrice);
            if ($days + $reach <= $longest && $holding < $saves) {
                return [$from, $saves, $holding];
            }
        }

        return null;
    }
}
