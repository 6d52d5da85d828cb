<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use TallBarrel\Work\Keeping\Machine;

final readonly class ThisMachine implements Machine
{
    public function __construct(private string $instanceDir)
    {
    }

    public function freePercent(): float
    {
        $all = (float) disk_total_space($this->instanceDir);

        return round(100 * (float) disk_free_space($this->instanceDir) / max(1.0, $all), 1);
    }

    public function copiedSecondsAgo(\DateTimeImmutable $now): ?int
    {
        $ages = array_map(
            static fn (string $copy): int => $now->getTimestamp() - (int) filemtime($copy),
            array_filter(
                glob(dirname($this->instanceDir).'/backups/tallbarrel-*.tar.gz*') ?: [],
                static fn (string $file): bool => 1 === preg_match('/\.gz(\.locked)?$/', $file),
            ),
        );

        return [] === $ages ? null : min($ages);
    }

    public function hasWorkers(): bool
    {
        $pid = @file_get_contents($this->instanceDir.'/run/supervisord.pid');

        return is_string($pid) && '' !== trim($pid) && file_exists('/proc/'.trim($pid));
    }
}
