<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** Where files that people bring wait until they are read. */
interface KeptFiles
{
    /** @return string where the copy is */
    public function keep(string $file): string;

    public function remove(string $kept): void;
}
