<?php

declare(strict_types=1);

namespace TallBarrel\Store\Import;

use TallBarrel\Core\InvalidValue;
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

    /** Marks a run as being applied; false if it is already, or was. */
    public function claim(ImportRun $run): bool;

    /** Applies all good lines of a claimed run, or none. */
    public function apply(int $id): void;

    /** The id of the last run that was applied; 0 when there is none. */
    public function lastApplied(): int;

    /** Rows applied so far. */
    public function progress(ImportRun $run): int;
}
