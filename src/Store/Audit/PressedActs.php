<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;

/** Which presses have done something. */
final readonly class PressedActs
{
    /** Nobody presses the same button again after this. */
    private const DAYS = 7;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private ClockInterface $clock,
    ) {
    }

    /** To be written along with whatever is saved next; nothing if nothing is. */
    public function expect(string $key): void
    {
        $this->entities->persist(new PressedAct($key, $this->clock->now()));
    }

    /** When it was done, and where it led, if it came so far; null if nothing was done. */
    public function find(string $key): ?DoneBefore
    {
        /** @var array{at: string, led_to: string|null}|false $row */
        $row = $this->connection->fetchAssociative('SELECT at, led_to FROM pressed_act WHERE press = ?', [$key]);

        return false === $row
            ? null
            : new DoneBefore(new \DateTimeImmutable($row['at'], new \DateTimeZone('UTC')), $row['led_to']);
    }

    public function ledTo(string $key, string $address): void
    {
        $this->connection->executeStatement(
            'UPDATE pressed_act SET led_to = ? WHERE press = ?',
            [mb_substr($address, 0, 500), $key],
        );
    }

    /** It was refused after all, and may be sent again; what led somewhere is done, and stays. */
    public function forget(string $key): void
    {
        $this->connection->executeStatement('DELETE FROM pressed_act WHERE press = ? AND led_to IS NULL', [$key]);
    }

    public function sweep(): void
    {
        $this->connection->executeStatement(
            'DELETE FROM pressed_act WHERE at < ? LIMIT 10000',
            [$this->clock->now()->modify(sprintf('-%d days', self::DAYS))->format('Y-m-d H:i:s')],
        );
    }
}
