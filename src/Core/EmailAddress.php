<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** An address for mail, in one spelling: without blanks around it and in small letters. */
final readonly class EmailAddress
{
    private function __construct()
    {
    }

    /** @throws InvalidValue if it is none, or longer than 180 characters */
    public static function read(string $typed): string
    {
        $address = mb_strtolower(trim($typed));
        if (false === filter_var($address, \FILTER_VALIDATE_EMAIL) || mb_strlen($address) > 180) {
            throw InvalidValue::because(
                sprintf('“%s” is no email address; expected one such as anna@example.org.', mb_substr($typed, 0, 200)),
            );
        }

        return $address;
    }
}
