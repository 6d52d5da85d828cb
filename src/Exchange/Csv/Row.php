<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** One line of an import: its values read by column, and what is wrong with them. */
final class Row
{
    /** @var list<array{int, string, string, string}> line, column, value, what is wrong */
    public array $problems = [];

    /** @var array<mixed>|null what was made of it */
    public ?array $made = null;

    /** @param array<string, string> $values */
    public function __construct(
        public readonly int $line,
        private readonly array $values,
        public readonly Numerals $numerals,
    ) {
        if (isset($values["\0"])) {
            $this->problems[] = [$line, '', '', $values["\0"]];
        }
    }

    public function has(string $column): bool
    {
        return '' !== ($this->values[$column] ?? '');
    }

    public function text(string $column, int $longest = 200, string $missing = ''): string
    {
        $value = $this->values[$column] ?? '';
        if ('' === $value) {
            return $missing;
        }
        if (mb_strlen($value) > $longest) {
            $this->refuse($column, sprintf('longer than %d characters', $longest));
        }

        return $value;
    }

    public function required(string $column, int $longest = 200): string
    {
        $value = $this->text($column, $longest);
        if ('' === $value) {
            $this->refuse($column, 'missing');
        }

        return $value;
    }

    /** Null when empty or wrong. */
    public function decimal(string $column, int $decimals = 3, bool $negative = false): ?BigDecimal
    {
        $value = $this->values[$column] ?? '';

        return '' === $value
            ? null
            : $this->attempt(
                $column,
                fn (): BigDecimal => $this->numerals->decimal(
                    $value,
                    $decimals,
                    'a number such as 12 or 2.5',
                    $negative,
                ),
            );
    }

    public function integer(string $column, int $low, int $high): ?int
    {
        $value = $this->values[$column] ?? '';
        if ('' === $value) {
            return null;
        }
        if (1 !== preg_match('/^\d{1,9}$/', $value) || (int) $value < $low || (int) $value > $high) {
            $this->refuse($column, sprintf('not a whole number from %d to %d', $low, $high));

            return null;
        }

        return (int) $value;
    }

    public function yes(string $column, bool $missing): bool
    {
        $value = strtolower($this->values[$column] ?? '');
        if (!in_array($value, ['', 'yes', 'no', '1', '0', 'true', 'false'], true)) {
            $this->refuse($column, 'neither yes nor no');
        }

        return '' === $value ? $missing : in_array($value, ['yes', '1', 'true'], true);
    }

    /** ISO 8601, as 2026-11-30; or 30.11.2026, and 30/11/2026 where it cannot be read in two ways. */
    public function day(string $column): ?\DateTimeImmutable
    {
        $value = $this->values[$column] ?? '';
        if ('' === $value) {
            return null;
        }
        [$year, $month, $day] = match (true) {
            1 === preg_match('/^(\d{4})[-\/](\d{1,2})[-\/](\d{1,2})$/', $value, $parts) => [$parts[1], $parts[2],
                $parts[3]],
            1 === preg_match('/^(\d{1,2})\.(\d{1,2})\.(\d{4})$/', $value, $parts) => [$parts[3], $parts[2], $parts[1]],
            1 === preg_match('/^(\d{1,2})\/(\d{1,2})\/(\d{4})$/', $value, $parts) => (int) $parts[1] > 12
                || $parts[1] === $parts[2]
                ? [$parts[3], $parts[2], $parts[1]]
                : [$parts[3], (int) $parts[2] > 12 ? $parts[1] : '?', $parts[2]],
            default => ['', '', ''],
        };
        if ('?' === $month) {
            $this->refuse($column, 'could be two days, with the month first or the day first; write it as 2026-11-30');

            return null;
        }
        if ('' === $year || !checkdate((int) $month, (int) $day, (int) $year)) {
            $this->refuse($column, 'not a day written as 2026-11-30');

            return null;
        }

        return new \DateTimeImmutable(sprintf('%04d-%02d-%02d', (int) $year, (int) $month, (int) $day));
    }

    /**
     * The id a code stands for.
     *
     * @param array<string, int> $known
     */
    public function code(string $column, array $known, string $what): ?int
    {
        $code = $this->required($column);
        if ('' === $code) {
            return null;
        }
        $id = $known[strtoupper($code)] ?? null;
        if (null === $id) {
            $this->refuse($column, 'no such '.$what);
        }

        return $id;
    }

    /**
     * @template T
     *
     * @param callable(): T $read
     *
     * @return T|null
     */
    public function attempt(string $column, callable $read): mixed
    {
        try {
            return $read();
        } catch (InvalidValue $invalid) {
            $this->refuse($column, $invalid->getMessage());

            return null;
        }
    }

    public function refuse(string $column, string $reason): void
    {
        $this->problems[] = [$this->line, $column, $this->values[$column] ?? '', $reason];
    }

    public function isGood(): bool
    {
        return [] === $this->problems;
    }
}
