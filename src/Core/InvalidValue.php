<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/**
 * A value that cannot be what it claims to be. The message names the value and what was expected, in words a person
 * at the desk can act on.
 */
final class InvalidValue extends \InvalidArgumentException
{
    public static function notANumber(string $value, string $expected): self
    {
        return new self(sprintf('“%s” is not a number; expected %s.', $value, $expected));
    }

    public static function negative(string $value, string $expected): self
    {
        return new self(sprintf('“%s” is below zero; expected %s.', $value, $expected));
    }

    public static function because(string $reason): self
    {
        return new self($reason);
    }
}
