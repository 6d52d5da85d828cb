<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;

/**
 * Chains what was noted: each entry gets a number and the SHA-256 of what it says and of the entry sealed before it, so
 * that one that was changed, or taken out of the middle, is found. One taken off the end is found by whoever knows
 * where the chain ended once: the head stands in the log of the doors and beside each copy.
 *
 * @phpstan-type Noted array{id: int, at: string, person_id: int|null, subject: string, words: string,
 *      changes: string|null, seal?: int, hash?: string}
 * @phpstan-type Sealed array{id: int, at: string, person_id: int|null, subject: string, words: string,
 *      changes: string|null, seal: int, hash: string}
 */
final readonly class Seals
{
    public const BEGINNING = '0000000000000000000000000000000000000000000000000000000000000000';
    private const LOCK = 'tallbarrel audit';
    private const AT_ONCE = 1000;

    public function __construct(private Connection $connection)
    {
    }

    /**
     * Seals what was noted since, in the order it was; beside other machines only one does.
     *
     * @return ChainHead|null where the chain ends now; null if there was nothing to seal
     */
    public function seal(): ?ChainHead
    {
        if (1 !== self::number($this->connection->fetchOne('SELECT GET_LOCK(?, 0)', [self::LOCK]))) {
            return null;
        }
        try {
            return $this->connection->transactional($this->sealSome(...));
        } finally {
            $this->connection->fetchOne('SELECT RELEASE_LOCK(?)', [self::LOCK]);
        }
    }

    private function sealSome(): ?ChainHead
    {
        /** @var list<Noted> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT id, at, person_id, subject, words, changes FROM audit_entry WHERE seal IS NULL ORDER BY id LIMIT ?',
            [self::AT_ONCE],
            [ParameterType::INTEGER],
        );
        if ([] === $rows) {
            return null;
        }
        $head = $this->head();
        [$seal, $hash] = [$head->entries, $head->hash];
        foreach ($rows as $row) {
            $hash = self::hash(++$seal, $hash, $row);
            $this->connection->executeStatement(
                'UPDATE audit_entry SET seal = ?, hash = ? WHERE id = ?',
                [$seal, $hash, $row['id']],
            );
        }

        return new ChainHead($seal, $hash);
    }

    /** Where the chain ends. */
    public function head(): ChainHead
    {
        /** @var array{seal: int, hash: string}|false $last */
        $last = $this->connection->fetchAssociative(
            'SELECT seal, hash FROM audit_entry WHERE seal IS NOT NULL ORDER BY seal DESC LIMIT 1',
        );

        return false === $last ? new ChainHead(0, self::BEGINNING) : new ChainHead($last['seal'], $last['hash']);
    }

    /**
     * Walks the whole chain.
     *
     * @param ChainHead|null $known where it ended once, as somebody kept it elsewhere
     *
     * @return list<string> what is not as it was written; empty if all of it is
     */
    public function faults(?ChainHead $known = null): array
    {
        $faults = [];
        [$expected, $hash] = [1, self::BEGINNING];
        $rows = $this->connection->iterateAssociative(
            'SELECT id, at, person_id, subject, words, changes, seal, hash FROM audit_entry WHERE seal IS NOT NULL
             ORDER BY seal',
        );
        foreach ($rows as $row) {
            /** @var Sealed $row */
            if ($row['seal'] !== $expected) {
                $faults[] = $row['seal'] === $expected + 1
                    ? sprintf('Entry %d is missing.', $expected)
                    : sprintf('Entries %d to %d are missing.', $expected, $row['seal'] - 1);
            } elseif (self::hash($row['seal'], $hash, $row) !== $row['hash']) {
                $faults[] = sprintf(
                    'Entry %d (%s, “%s”) is not as it was written.',
                    $row['seal'],
                    $row['at'],
                    mb_substr($row['words'], 0, 60),
                );
            }
            if ($known?->entries === $row['seal'] && $known->hash !== $row['hash']) {
                $faults[] = sprintf('Entry %d is not the one that was known.', $row['seal']);
            }
            [$expected, $hash] = [$row['seal'] + 1, $row['hash']];
        }
        if (null !== $known && $known->entries >= $expected) {
            $faults[] = sprintf(
                'The chain ends at entry %d, and went on to %d once: what came after was taken away.',
                $expected - 1,
                $known->entries,
            );
        }

        return $faults;
    }

    /** How many were noted and are not sealed yet. */
    public function waiting(): int
    {
        return self::number($this->connection->fetchOne('SELECT COUNT(*) FROM audit_entry WHERE seal IS NULL'));
    }

    /** @param Noted $row */
    private static function hash(int $seal, string $before, array $row): string
    {
        return hash('sha256', (string) json_encode([
            $before,
            $seal,
            $row['id'],
            $row['at'],
            $row['person_id'],
            $row['subject'],
            $row['words'],
            $row['changes'],
        ], \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR));
    }

    private static function number(mixed $value): int
    {
        return is_numeric($value) ? (int) $value : 0;
    }
}
