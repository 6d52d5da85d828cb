<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Person\Person;

/** Brings own data from files: checked first, applied only when told to. */
interface Imports
{
    public const MOST_BYTES = 40 * 1024 * 1024;

    /** @return array<string, ImportForm> by name, in the order a new business needs them */
    public function forms(): array;

    /**
     * Takes a file in and checks it line by line. Nothing is applied.
     *
     * @throws InvalidValue if it is not a file of this kind at all
     */
    public function check(string $kind, string $file, string $filename, Person $person): ImportRun;

    /**
     * Checks it anew, its numbers read with this decimal mark.
     *
     * @throws Refused if it was settled already
     */
    public function checkAgain(ImportRun $run, string $decimalMark): void;

    /** Has a worker apply all good lines of a run, or none; false if that was asked for already. */
    public function askToApply(ImportRun $run): bool;

    /** Rows applied so far. */
    public function progress(ImportRun $run): int;
}
