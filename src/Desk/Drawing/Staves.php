<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

/** Ordered, received and invoiced under each other on one scale; more asked than came stands out. */
final readonly class Staves
{
    public const WIDTH = 104;
    private const LEAST = 2.0;

    private function __construct(
        public float $ordered,
        public float $received,
        public float $invoiced,
        public bool $tooMuch,
    ) {
    }

    public static function of(float $ordered, float $received, float $invoiced): self
    {
        $most = max(1e-9, $ordered, $received, $invoiced);
        $width = static fn (float $figure): float => $figure <= 0
            ? 0.0
            : max(self::LEAST, round(self::WIDTH * $figure / $most, 1));

        return new self($width($ordered), $width($received), $width($invoiced), $invoiced > $received + 1e-9);
    }
}
