<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;

/**
 * How the application itself is: what somebody who watches machines asks.
 *
 * @phpstan-type Figures array{database: int, queued: int, oldest_queued_seconds: int, stopped: int, workers: int,
 *      disk_free_percent: float, backup_age_seconds: int|null}
 */
final readonly class Condition
{
    /** Beyond these nobody should wait any longer. */
    private const QUEUE_STANDS = 600;
    private const DISK_FULL = 3.0;
    private const DISK_LOW = 10.0;
    /** A copy is taken every day. */
    private const BACKUP_OLD = 2 * 86_400;

    public function __construct(
        private Connection $connection,
        private ClockInterface $clock,
        private string $instanceDir,
    ) {
    }

    /** @return Figures a database that does not answer is 0, and nothing is known of the queue then */
    public function figures(): array
    {
        $database = 1;
        $queue = ['queued' => 0, 'oldest' => null, 'stopped' => 0];
        try {
            /** @var array{queued: int, oldest: string|null, stopped: int} $queue */
            $queue = $this->connection->fetchAssociative(
                "SELECT COUNT(IF(queue_name <> 'failed', 1, NULL)) queued,
                    COUNT(IF(queue_name = 'failed', 1, NULL)) stopped,
                    MIN(IF(queue_name <> 'failed', available_at, NULL)) oldest FROM queued_message",
            );
        } catch (\Throwable) {
            $database = 0;
        }
        $now = $this->clock->now()->getTimestamp();
        $oldest = null === $queue['oldest'] ? $now : strtotime($queue['oldest'].' UTC');
        $copies = glob(dirname($this->instanceDir).'/backups/tallbarrel-*.tar.gz*') ?: [];
        $ages = array_map(static fn (string $copy): int => $now - (int) filemtime($copy), $copies);
        $all = (float) disk_total_space($this->instanceDir);

        return [
            'database' => $database,
            'queued' => $queue['queued'],
            'oldest_queued_seconds' => max(0, $now - (false === $oldest ? $now : $oldest)),
            'stopped' => $queue['stopped'],
            'workers' => $this->haveWorkers() ? 1 : 0,
            'disk_free_percent' => round(100 * (float) disk_free_space($this->instanceDir) / max(1.0, $all), 1),
            'backup_age_seconds' => [] === $ages ? null : min($ages),
        ];
    }

    /**
     * @param Figures $figures
     *
     * @return array{list<string>, list<string>} what does not work, and what somebody should look at
     */
    public static function judge(array $figures): array
    {
        $broken = array_keys(array_filter([
            'the database does not answer' => 1 !== $figures['database'],
            'the queue stands' => $figures['oldest_queued_seconds'] > self::QUEUE_STANDS,
            'the disk is full' => $figures['disk_free_percent'] < self::DISK_FULL,
        ]));
        $look = array_keys(array_filter([
            'no workers run' => 1 !== $figures['workers'],
            'work was given up' => $figures['stopped'] > 0,
            'the disk is nearly full' => $figures['disk_free_percent'] < self::DISK_LOW,
            'no copy was ever taken' => null === $figures['backup_age_seconds'],
            'the last copy is old' => $figures['backup_age_seconds'] > self::BACKUP_OLD,
        ]));

        return [$broken, $look];
    }

    private function haveWorkers(): bool
    {
        $pid = @file_get_contents($this->instanceDir.'/run/supervisord.pid');

        return is_string($pid) && file_exists('/proc/'.trim($pid)) && '' !== trim($pid);
    }
}
