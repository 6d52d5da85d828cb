<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use TallBarrel\Store\Planning\SupplierSum;

/** The first thing a supplier asks of an order that it does not reach yet. */
final readonly class Threshold
{
    public const VALUE = 'value';
    public const WEIGHT = 'weight';
    public const PACKS = 'packs';

    /**
     * @param string $words   "minimum", "free freight", "full load"
     * @param string $measure one of the constants: the supplier's currency, kilograms, packs
     * @param float  $saved   freight, in the supplier's currency; INF where nothing may be sent below it
     */
    private function __construct(
        public string $words,
        public string $measure,
        public float $reached,
        public float $asked,
        public float $saved,
    ) {
    }

    /** Null where nothing is asked for, or all of it is reached. */
    public static function of(SupplierSum $sum): ?self
    {
        $minimum = $sum->minimum;
        $freight = $sum->tariff->of($sum->value, $sum->weightKg);
        foreach (
            [
                ['minimum', self::VALUE, $sum->value, $minimum->value, \INF],
                ['minimum', self::WEIGHT, $sum->weightKg, $minimum->kilograms, \INF],
                ['minimum', self::PACKS, $sum->packs, $minimum->packs, \INF],
                ['free freight', self::VALUE, $sum->value, $sum->tariff->freeFrom, $freight],
                ['full load', self::WEIGHT, $sum->weightKg, $sum->fullLoadKg, $freight],
            ] as [$words, $measure, $reached, $asked, $saved]
        ) {
            if (null !== $asked && $reached < $asked && $saved > 0) {
                return new self($words, $measure, $reached, $asked, $saved);
            }
        }

        return null;
    }

    public function isMinimum(): bool
    {
        return \INF === $this->saved;
    }
}
