<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Desk\Shell\Format;

/** Upright bars with a figure above and a name below each. */
final readonly class Bars
{
    /**
     * @param list<array{x: float, y: float, width: float, height: float, label: string, figure: string, middle: float,
     *      strong: bool}> $bars
     */
    private function __construct(public int $width, public int $height, public array $bars)
    {
    }

    /** @param list<array{string, float}> $values name and value; the first bar is drawn strongly */
    public static function of(array $values, int $width = 280, int $height = 84): self
    {
        $most = max([1e-9, ...array_column($values, 1)]);
        $slot = $width / max(1, count($values));
        $bars = [];
        foreach ($values as $i => [$label, $value]) {
            $tall = round((($height - 34) * $value) / $most, 1);
            $bars[] = [
                'x' => round($i * $slot + 3, 1),
                'y' => $height - 18 - $tall,
                'width' => round($slot - 6, 1),
                'height' => $tall,
                'label' => $label,
                'figure' => $value >= 1000 ? Format::number($value / 1000, 1).'k' : Format::number($value),
                'middle' => round(($i + 0.5) * $slot, 1),
                'strong' => 0 === $i,
            ];
        }

        return new self($width, $height, $bars);
    }
}
