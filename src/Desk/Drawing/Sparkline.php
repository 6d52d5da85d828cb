<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

/** A small line: what was, and dotted what is expected. */
final readonly class Sparkline
{
    private function __construct(public int $width, public int $height, public string $past, public string $future)
    {
    }

    /**
     * @param list<float> $past
     * @param list<float> $future
     */
    public static function of(array $past, array $future, int $width = 74, int $height = 22): self
    {
        $all = [...$past, ...$future];
        $most = max([1e-9, ...$all]);
        $step = $width / max(1, count($all) - 1);
        $points = [];
        foreach ($all as $i => $value) {
            $points[] = round($i * $step, 1).','.round(1 + ($height - 3) * (1 - $value / $most), 1);
        }
        $split = count($past);

        return new self(
            $width,
            $height,
            implode(' ', array_slice($points, 0, $split)),
            implode(' ', array_slice($points, max(0, $split - 1))),
        );
    }
}
