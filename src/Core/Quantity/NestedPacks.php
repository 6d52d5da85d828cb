<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use TallBarrel\Core\InvalidValue;

/** Packs made of packs: a layer of cases, a pallet of layers. */
final readonly class NestedPacks
{
    /** @param non-empty-list<Pack> $packs the one bought first, each later one made of the one before */
    private function __construct(public array $packs)
    {
    }

    /**
     * @param string $typed name "=" how many of the one before, such as "layer=8 pallet=6"; empty for none
     *
     * @throws InvalidValue if a pack would contain itself, or fewer than two of the one before
     */
    public static function read(Pack $base, string $typed): self
    {
        $packs = [$base];
        $names = [mb_strtolower($base->name)];
        foreach (preg_split('/\s+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^([^=\s]{1,20})=(\d{1,5})$/u', $part, $found)) {
                throw InvalidValue::because(
                    sprintf(
                        '“%s” is not a larger pack; expected its name, “=”, and how many of the one before: layer=8 '
                        .'pallet=6.',
                        $part,
                    ),
                );
            }
            if (in_array(mb_strtolower($found[1]), $names, true)) {
                throw InvalidValue::because(
                    sprintf('A %s cannot contain a %s: each pack may stand in the chain once.', $found[1], $found[1]),
                );
            }
            if ((int) $found[2] < 2) {
                throw InvalidValue::because(
                    sprintf(
                        'A %s of %d is not larger than what it is made of; expected 2 or more.',
                        $found[1],
                        (int) $found[2],
                    ),
                );
            }
            $names[] = mb_strtolower($found[1]);
            $packs[] = Pack::of($found[1], $packs[count($packs) - 1]->content->multipliedBy($found[2]));
        }

        return new self($packs);
    }

    /** "case × 12, layer × 96, pallet × 576". */
    public function label(): string
    {
        return implode(', ', array_map(static fn (Pack $pack): string => $pack->label(), $this->packs));
    }
}
