<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** The machine this runs on, as far as somebody has to look after it. */
interface Machine
{
    /** Of the disk that data is written to, 0 to 100. */
    public function freePercent(): float;

    /** How old the last whole copy is, seconds; null if there is none. */
    public function copiedSecondsAgo(\DateTimeImmutable $now): ?int;

    public function hasWorkers(): bool;
}
