<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** A day as people and browsers write it. */
final class Day
{
    /** @throws InvalidValue */
    public static function read(string $typed): \DateTimeImmutable
    {
        $day = \DateTimeImmutable::createFromFormat('!Y-m-d', $typed);
        if (false === $day || $day->format('Y-m-d') !== $typed) {
            throw InvalidValue::because(sprintf('“%s” is not a day; expected one such as 2026-11-30.', $typed));
        }

        return $day;
    }

    public static function isSame(?\DateTimeImmutable $one, ?\DateTimeImmutable $other): bool
    {
        return $one?->format('Y-m-d') === $other?->format('Y-m-d');
    }
}
