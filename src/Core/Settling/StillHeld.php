<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/**
 * Which part of a cost that was put on stock is still in it, by the moving average: what is in stock is one pool, each
 * unit that goes takes the same share of it along, and what comes takes none away.
 *
 * Follows from IAS 2 "Inventories", paragraph 27 (weighted average, calculated as each shipment is received); by hand:
 * 100 came and 40 went, 60 % is left.
 */
final readonly class StillHeld
{
    private const SCALE = 12;

    private function __construct(public BigDecimal $held, public BigDecimal $part)
    {
    }

    /** @param BigDecimal $held stock units of all sites when the cost was put on them; nothing held keeps nothing */
    public static function of(BigDecimal $held): self
    {
        return new self($held, $held->isPositive() ? BigDecimal::one() : BigDecimal::zero());
    }

    /** @param BigDecimal $units that came, above zero, or went, below */
    public function moves(BigDecimal $units): self
    {
        $held = $this->held->plus($units);

        return new self($held, match (true) {
            !$held->isPositive() => BigDecimal::zero(),
            $units->isNegative() => $this->part->multipliedBy($held)
                ->dividedBy($this->held, self::SCALE, RoundingMode::HalfUp),
            default => $this->part,
        });
    }

    /** The same goods counted anew in another unit. */
    public function isCountedIn(BigDecimal $units): self
    {
        return new self($this->held->plus($units), $this->part);
    }
}
