<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** A message: a file that was checked is to be applied. */
final readonly class ImportToApply
{
    public function __construct(public int $run)
    {
    }
}
