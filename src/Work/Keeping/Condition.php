<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

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
        private Machine $machine,
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

        return [
            'database' => $database,
            'queued' => $queue['queued'],
            'oldest_queued_seconds' => max(0, $now - (false === $oldest ? $now : $oldest)),
            'stopped' => $queue['stopped'],
            'workers' => $this->machine->hasWorkers() ? 1 : 0,
            'disk_free_percent' => $this->machine->freePercent(),
            'backup_age_seconds' => $this->machine->copiedSecondsAgo($this->clock->now()),
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

    /** @return list<string> what an owner has to be told, in the words of judge() */
    public function toTell(bool $isDemo): array
    {
        [$broken, $look] = self::judge($this->figures());
        // What is told elsewhere, and what nobody needs of what is made up.
        $quiet = ['no workers run', 'work was given up'];
        if ($isDemo) {
            $quiet = [...$quiet, 'no copy was ever taken', 'the last copy is old'];
        }

        return array_values(array_diff([...$broken, ...$look], $quiet));
    }
}
