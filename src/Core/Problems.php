<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** What is wrong with what somebody typed, by the place it was typed at; the first reason for each place stands. */
final class Problems
{
    /** @var array<string, string> reasons by place */
    private array $reasons = [];

    public function refuse(string $place, string $reason): void
    {
        $this->reasons[$place] ??= $reason;
    }

    /**
     * Does something; what it refuses is noted for the place.
     *
     * @template T
     *
     * @param callable(): T $work
     *
     * @return T|null null where it was refused
     */
    public function attempt(string $place, callable $work): mixed
    {
        try {
            return $work();
        } catch (InvalidValue $invalid) {
            $this->refuse($place, $invalid->getMessage());

            return null;
        }
    }

    /**
     * Carries out a change; what it refuses is noted for the place.
     *
     * @param callable(): void $change
     */
    public function apply(string $place, callable $change): void
    {
        try {
            $change();
        } catch (InvalidValue $invalid) {
            $this->refuse($place, $invalid->getMessage());
        }
    }

    public function concern(string $place): bool
    {
        return isset($this->reasons[$place]);
    }

    public function at(string $place): ?string
    {
        return $this->reasons[$place] ?? null;
    }

    /** @return array<string, string> reasons by place */
    public function all(): array
    {
        return $this->reasons;
    }

    public function areNone(): bool
    {
        return [] === $this->reasons;
    }
}
