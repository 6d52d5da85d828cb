<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** Files that belong to what is kept in the database: letters of the stand-in mailbox, files that were brought. */
interface Leftovers
{
    public function sweep(): void;
}
