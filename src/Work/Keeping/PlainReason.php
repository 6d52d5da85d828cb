<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\Exception as DatabaseError;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;

/** Why something did not work, as a person may read it: never what the database was asked. */
final readonly class PlainReason
{
    private function __construct()
    {
    }

    public static function of(\Throwable $error): string
    {
        for ($cause = $error; null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof Refused || $cause instanceof InvalidValue) {
                return $cause->getMessage();
            }
            if ($cause instanceof DatabaseError || $cause instanceof \PDOException) {
                return 'The database did not take it. The log of the application says why.';
            }
        }

        return self::read($error->getMessage());
    }

    /** The same of words that were kept without what they belonged to. */
    public static function read(string $words): string
    {
        return 1 === preg_match('/SQLSTATE|executing a query/', $words)
            ? 'The database did not take it. The log of the application says why.'
            : $words;
    }
}
