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
     * Checks it anew, read another way. What a person says of headings is remembered for the next file of this kind.
     *
     * @throws Refused      if it was settled already
     * @throws InvalidValue if it cannot be read that way
     */
    public function checkAgain(ImportRun $run, FileReading $reading): void;

    /**
     * The columns of the file beside what they mean, and how it is written.
     *
     * @throws InvalidValue if it is no longer there
     */
    public function file(ImportRun $run): BroughtTable;

    /** @return iterable<list<string>> the rows that cannot be used, as they were brought,
     * each with the reason behind */
    public function badRows(ImportRun $run): iterable;

    /** @return iterable<list<string>> all there is of a kind,
     * as it could be brought again; the first names the columns */
    public function all(string $kind): iterable;

    /** Has a worker apply all good lines of a run, or none; false if that was asked for already. */
    public function askToApply(ImportRun $run): bool;

    /** Rows applied so far. */
    public function progress(ImportRun $run): int;
}
