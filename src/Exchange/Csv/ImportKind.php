<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use TallBarrel\Store\Person\Person;

/** One kind of own data that can be brought by CSV. */
#[AutoconfigureTag]
interface ImportKind
{
    public function name(): string;

    public function title(): string;

    /** @return array<string, string> what stands in each column; a star marks those that are needed */
    public function columns(): array;

    /** @return list<list<string>> a few lines as they could be */
    public function sample(): array;

    /**
     * Reads a file's lines against what is stored. Called once for checking and once for applying; it may keep what it
     * looked up in between only within one call.
     *
     * @return callable(Row): (array<mixed>|null) reads one line; problems are left in the row
     */
    public function reader(): callable;

    /** @return iterable<list<string>> all there is, one line each, so that brought again it changes nothing */
    public function all(): iterable;

    /**
     * Applies good lines, inside one transaction.
     *
     * @param iterable<array<mixed>> $rows what the reader made of them
     */
    public function apply(iterable $rows, Person $person): void;
}
