<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Store\Site\Site;

/** A policy as it is typed; without a kind, that of its class. */
final class ItemPolicyEntry
{
    public ?PolicyKind $kind = null;
    public string $target = ServiceTarget::CYCLE;
    /** Percent. */
    public ?BigDecimal $service;
    public ?BigDecimal $amount = null;
    public ?BigDecimal $minimum = null;
    public bool $beyond = false;

    /** @param Site|null $where null for everywhere */
    public function __construct(?Policy $own, public ?Site $where = null)
    {
        $this->service = BigDecimal::of(95);
        if (null !== $own) {
            $this->kind = $own->kind;
            $this->target = $own->target->kind;
            $this->service = self::decimal(100 * $own->target->level);
            $this->amount = self::decimal($own->amount);
            $this->minimum = self::decimal($own->minimum);
            $this->beyond = $own->beyond;
        }
    }

    /** @throws InvalidValue */
    public function policy(): ?Policy
    {
        return null === $this->kind
            ? null
            : Policy::of(
                $this->kind,
                ServiceTarget::of($this->target, ($this->service?->toFloat() ?? 0.0) / 100),
                $this->amount?->toFloat(),
                $this->minimum?->toFloat(),
                $this->beyond,
            );
    }

    private static function decimal(?float $figure): ?BigDecimal
    {
        return null === $figure ? null : BigDecimal::of((string) round($figure, 4));
    }
}
