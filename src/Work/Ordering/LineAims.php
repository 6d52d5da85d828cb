<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

/** Whom a line of an order is for, and where its cost goes. */
final readonly class LineAims
{
    /** @param int|null $promise to a customer; null for none */
    public function __construct(public ?int $promise, public string $costAccount, public string $forWhom)
    {
    }
}
