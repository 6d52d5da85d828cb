<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Desk\Shell\Format;

/**
 * The barrel: how full an item is. Its rim is the order-up-to level (or more, if more is held), its hoops the safety
 * stock and the reorder point; the fill turns when it is under safety stock.
 */
final readonly class Barrel
{
    public const WIDTH = 20;
    public const HEIGHT = 44;
    private const TOP = 2.0;
    private const BOTTOM = 42.0;

    private function __construct(
        public float $heldTop,
        public float $comingTop,
        public ?float $safetyHoop,
        public ?float $reorderHoop,
        public bool $short,
        public string $words,
    ) {
    }

    /** All in stock units. */
    public static function of(float $held, float $coming, float $safety, float $reorderPoint, float $orderUpTo): self
    {
        $rim = max($orderUpTo, $held + $coming, 1e-9);
        $y = static fn (float $level): float => round(
            self::BOTTOM - max(0.0, min(1.0, $level / $rim)) * (self::BOTTOM - self::TOP),
            1,
        );
        $short = $held < $safety || ($held <= 0 && $orderUpTo > 0);

        return new self(
            $y($held),
            $y($held + $coming),
            $safety > 0 ? $y($safety) : null,
            $reorderPoint > $safety ? $y($reorderPoint) : null,
            $short,
            sprintf(
                '%s held, %s coming, reorder at %s, fill to %s',
                Format::number($held),
                Format::number($coming),
                Format::number($reorderPoint),
                Format::number($orderUpTo),
            ),
        );
    }
}
