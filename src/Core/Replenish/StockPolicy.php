<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** A rule in plain figures: at or below the reorder point, up to a level or in lots. */
final readonly class StockPolicy
{
    private function __construct(public float $reorderPoint, public ?float $orderUpTo, public ?float $lot)
    {
    }

    /**
     * Up to a level once the position is at or below the reorder point.
     *
     * @throws InvalidValue
     */
    public static function upTo(float $reorderPoint, float $orderUpTo): self
    {
        if ($orderUpTo < $reorderPoint) {
            throw InvalidValue::because(
                sprintf('An order-up-to level of %g lies below the reorder point of %g.', $orderUpTo, $reorderPoint),
            );
        }

        return new self($reorderPoint, $orderUpTo, null);
    }

    /** At every review, up to a level. */
    public static function always(float $orderUpTo): self
    {
        return new self(INF, $orderUpTo, null);
    }

    /**
     * In lots once the position is at or below the reorder point.
     *
     * @throws InvalidValue
     */
    public static function inLots(float $reorderPoint, float $lot): self
    {
        if ($lot <= 0) {
            throw InvalidValue::because(sprintf('A lot of %g cannot be ordered; expected above 0.', $lot));
        }

        return new self($reorderPoint, null, $lot);
    }

    /** What is ordered at a position, 0 for nothing. */
    public function orderAt(float $position): float
    {
        if (null !== $this->lot) {
            return $position > $this->reorderPoint
                ? 0.0
                : $this->lot * (floor(($this->reorderPoint - $position) / $this->lot) + 1);
        }
        if ($position > $this->reorderPoint) {
            return 0.0;
        }

        return max(0.0, (float) $this->orderUpTo - $position);
    }

    /** The highest position after ordering. */
    public function highest(): float
    {
        return $this->orderUpTo ?? $this->reorderPoint + (float) $this->lot;
    }
}
