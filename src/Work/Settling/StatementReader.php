<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\InvalidValue;

/** Reads a statement of our bank account. */
interface StatementReader
{
    /**
     * @param string $name as the file was called
     *
     * @return list<StatementEntry> what was paid out, in the order it stands there
     *
     * @throws InvalidValue if it is no statement, or of another account than that
     */
    public function read(string $name, string $bytes, string $iban): array;
}
