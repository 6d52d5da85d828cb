<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

/** One piece of work that was given up. */
final readonly class StoppedEntry
{
    public function __construct(
        public int $id,
        public string $words,
        public string $why,
        public ?\DateTimeInterface $at,
    ) {
    }
}
