<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Sourcing\CostPart;
use TallBarrel\Core\Sourcing\LandedCost;

/** A landed cost as one bar of its parts; what good terms give back is hatched out of the price. */
final readonly class CostStack
{
    public const WIDTH = 340;
    private const GAP = 1.5;

    /** @param list<array{x: float, width: float, part: string, words: string}> $pieces */
    private function __construct(public array $pieces)
    {
    }

    /** @param float $most the unit cost that fills the width */
    public static function of(LandedCost $cost, float $most): self
    {
        $scale = self::WIDTH / max(1e-9, $most) / $cost->units;
        $back = max(0.0, -$cost->part(CostPart::Terms));
        $pieces = [];
        $x = 0.0;
        foreach (CostPart::cases() as $part) {
            $amount = $cost->part($part);
            $amount =
                CostPart::Price === $part ? $amount - $back : (CostPart::Terms === $part ? max(0.0, $amount) : $amount);
            $width = $amount * $scale;
            if ($width > 0.3) {
                $pieces[] = [
                    'x' => round($x, 1),
                    'width' => round(max(1.0, $width - self::GAP), 1),
                    'part' => $part->value,
                    'words' => $part->words(),
                ];
                $x += $width;
            }
        }
        if ($back * $scale > 0.3) {
            $pieces[] = [
                'x' => round($x, 1),
                'width' => round($back * $scale, 1),
                'part' => 'back',
                'words' => 'given back by the terms',
            ];
        }

        return new self($pieces);
    }
}
