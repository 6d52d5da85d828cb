<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** One line of a sum: what it is, its sign and figure, and whether it is the total. */
final readonly class ExplanationLine
{
    public function __construct(
        public string $label,
        public string $sign,
        public string $figure,
        public bool $total = false,
    ) {
    }
}
