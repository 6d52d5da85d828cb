<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;

/** How far a change reaches: some items, all a supplier offers, or everything. */
final readonly class Moves
{
    /** @param list<Item> $items */
    private function __construct(public array $items, public ?Supplier $supplier, public bool $everything)
    {
    }

    public static function items(?Item ...$items): self
    {
        return new self(
            array_values(array_filter($items, static fn (?Item $item): bool => null !== $item)),
            null,
            false,
        );
    }

    public static function allOf(Supplier $supplier): self
    {
        return new self([], $supplier, false);
    }

    public static function everything(): self
    {
        return new self([], null, true);
    }
}
