<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use TallBarrel\Core\InvalidValue;

/**
 * With whom something was agreed, and on what: one supplier, a group of them or everyone; one item, a group of them or
 * everything.
 */
final readonly class AgreedScope
{
    private function __construct(
        public ?int $supplier,
        public string $supplierGroup,
        public ?int $item,
        public string $itemGroup,
    ) {
    }

    /**
     * @param int|null $supplier      id; null for a group, or with an empty group for everyone
     * @param string   $supplierGroup capitals and small letters are the same
     * @param int|null $item          id; null for a group, or with an empty group for everything
     *
     * @throws InvalidValue if it would be for one and for a group
     */
    public static function of(?int $supplier, string $supplierGroup, ?int $item, string $itemGroup): self
    {
        if ((null !== $supplier && '' !== $supplierGroup) || (null !== $item && '' !== $itemGroup)) {
            throw InvalidValue::because('It is for one or for a group, not for both.');
        }

        return new self($supplier, self::group($supplierGroup), $item, self::group($itemGroup));
    }

    /** The spelling by which groups are told apart. */
    public static function group(string $typed): string
    {
        return mb_strtolower(trim((string) preg_replace('/\s+/u', ' ', $typed)));
    }

    /** Where it stands among all that could hold. */
    public function key(): string
    {
        return self::keyOf($this->supplier ?? $this->supplierGroup, $this->item ?? $this->itemGroup);
    }

    /**
     * Where what holds for a supplier's item may stand, the most particular place first: who it is with counts before
     * what it is on (a choice of this application; no source).
     *
     * @return non-empty-list<string>
     */
    public static function places(int $supplier, string $supplierGroup, int $item, string $itemGroup): array
    {
        $places = [];
        foreach (array_unique([$supplier, self::group($supplierGroup), '']) as $who) {
            foreach (array_unique([$item, self::group($itemGroup), '']) as $what) {
                $places[] = self::keyOf($who, $what);
            }
        }

        return $places;
    }

    /** Ids and names of groups never meet: a group may be called 7. */
    private static function keyOf(int|string $who, int|string $what): string
    {
        return json_encode([$who, $what], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
