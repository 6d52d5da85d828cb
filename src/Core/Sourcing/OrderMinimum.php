<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use TallBarrel\Core\InvalidValue;

/** The least a supplier takes in one order: goods in its currency, kilograms, packs. */
final readonly class OrderMinimum
{
    private function __construct(public ?float $value, public ?float $kilograms, public ?float $packs)
    {
    }

    public static function none(): self
    {
        return new self(null, null, null);
    }

    /** @throws InvalidValue if one is below zero */
    public static function of(?float $value, ?float $kilograms = null, ?float $packs = null): self
    {
        foreach ([$value, $kilograms, $packs] as $least) {
            if (null !== $least && $least < 0) {
                throw InvalidValue::negative((string) $least, 'a minimum of 0 or more');
            }
        }

        return new self($value ?: null, $kilograms ?: null, $packs ?: null);
    }

    /** What an order still lacks, such as "120 of 500 in goods"; null where it reaches the minimum. */
    public function shortfall(float $value, float $kilograms, float $packs): ?string
    {
        foreach (
            [
                [$this->value, $value, 'in goods'],
                [$this->kilograms, $kilograms, 'kg'],
                [$this->packs, $packs, 'packs'],
            ] as [$least, $has, $of]
        ) {
            if (null !== $least && $has < $least - 1e-9) {
                return sprintf(
                    '%s short of their minimum of %s %s',
                    number_format(ceil($least - $has)),
                    number_format($least),
                    $of,
                );
            }
        }

        return null;
    }
}
