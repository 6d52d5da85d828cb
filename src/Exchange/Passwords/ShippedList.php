<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Passwords;

use TallBarrel\Work\Keeping\CommonPasswords;

/** A list that ships with the application, one a line, in small letters; written when the assets are built. */
final readonly class ShippedList implements CommonPasswords
{
    public function __construct(private string $projectDir)
    {
    }

    public function has(string $password): bool
    {
        $file = fopen($this->projectDir.'/build/common-passwords.txt', 'r')
            ?: throw new \RuntimeException('The list of common passwords is missing; bin/start writes it.');
        $wanted = mb_strtolower($password);
        // What is only lengthened by digits and marks is as common as what it began with.
        $bare = (string) preg_replace('/[\d\W_]+$/u', '', $wanted);
        try {
            while (false !== ($line = fgets($file))) {
                $line = rtrim($line, "\n");
                if ($line === $wanted || (strlen($line) >= 6 && $line === $bare)) {
                    return true;
                }
            }
        } finally {
            fclose($file);
        }

        return false;
    }
}
