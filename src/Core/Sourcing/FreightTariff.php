<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/**
 * What the carriage of one order costs, in the supplier's currency: the same for every order, by weight, or by the
 * pallet; nothing from a certain value of goods on.
 */
final readonly class FreightTariff
{
    public const NONE = 'none';
    public const FLAT = 'flat';
    public const WEIGHT = 'weight';
    public const PALLET = 'pallet';

    /** @param list<array{float, float}> $steps from so many kilograms, cost; rising */
    private function __construct(
        public string $kind,
        public float $cost,
        public array $steps,
        public float $palletKg,
        public ?float $freeFrom,
    ) {
    }

    public static function none(): self
    {
        return new self(self::NONE, 0.0, [], 0.0, null);
    }

    /** @throws InvalidValue */
    public static function flat(float $cost, ?float $freeFrom = null): self
    {
        return new self(self::FLAT, self::charge($cost), [], 0.0, $freeFrom);
    }

    /**
     * @param list<array{float, float}> $steps from so many kilograms, the cost of the order; the first from 0
     *
     * @throws InvalidValue if the steps do not begin at 0, or a heavier order costs less
     */
    public static function byWeight(array $steps, ?float $freeFrom = null): self
    {
        usort($steps, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        if ([] === $steps || 0.0 !== $steps[0][0]) {
            throw InvalidValue::because('Freight by weight needs a first step from 0 kg, such as 0=9 30=18 100=45.');
        }
        foreach ($steps as $i => [$from, $cost]) {
            self::charge($cost);
            if ($i > 0 && ($from === $steps[$i - 1][0] || $cost < $steps[$i - 1][1])) {
                throw InvalidValue::because(
                    sprintf(
                        'Freight from %g kg on (%g) must start later and cost no less than the step before (%g).',
                        $from,
                        $cost,
                        $steps[$i - 1][1],
                    ),
                );
            }
        }

        return new self(self::WEIGHT, 0.0, $steps, 0.0, $freeFrom);
    }

    /**
     * @param float $palletKg what fills one, in kilograms
     *
     * @throws InvalidValue
     */
    public static function byPallet(float $cost, float $palletKg, ?float $freeFrom = null): self
    {
        if ($palletKg <= 0) {
            throw InvalidValue::because(sprintf('A pallet of %g kg cannot be; expected more than 0.', $palletKg));
        }

        return new self(self::PALLET, self::charge($cost), [], $palletKg, $freeFrom);
    }

    /**
     * Reads weight steps as they are typed: "0=9 30=18 100=45".
     *
     * @throws InvalidValue
     */
    public static function readSteps(string $typed, ?float $freeFrom = null, ?Numerals $numerals = null): self
    {
        $numerals ??= Numerals::with(Numerals::POINT);
        $steps = [];
        foreach (preg_split('/\s+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^([\d.,]+)=([\d.,]+)$/', $part, $found)) {
                throw InvalidValue::because(
                    sprintf(
                        '“%s” is not a step of freight by weight; expected kilograms, “=”, cost: 0=9 30=18 100=45.',
                        $part,
                    ),
                );
            }
            $steps[] = [
                $numerals->decimal($found[1], 3, most: 999_999)->toFloat(),
                $numerals->decimal($found[2], 3, most: 9_999_999)->toFloat(),
            ];
        }

        return self::byWeight($steps, $freeFrom);
    }

    /** Cost of an order of such value and weight; nothing for an empty one. */
    public function of(float $value, float $kilograms): float
    {
        if (($value <= 0 && $kilograms <= 0) || (null !== $this->freeFrom && $value >= $this->freeFrom)) {
            return 0.0;
        }

        return match ($this->kind) {
            self::FLAT => $this->cost,
            self::WEIGHT => $this->step($kilograms),
            self::PALLET => $this->cost * max(1.0, ceil(round($kilograms / $this->palletKg, 9))),
            default => 0.0,
        };
    }

    /**
     * The prices there are, as one may choose between them: a cost, and what an order must keep to for it. Choosing one
     * that costs more than the order's own is always allowed, so the cheapest allowed one is the tariff.
     *
     * @param float $mostKg no order is heavier
     *
     * @return non-empty-list<array{cost: float, valueFrom: float|null, kgUpTo: float|null}>
     */
    public function tiers(float $mostKg): array
    {
        $tiers = [];
        if (self::WEIGHT === $this->kind) {
            foreach ($this->steps as $i => [$from, $cost]) {
                if ($from > $mostKg && $i > 0) {
                    break;
                }
                // The next step begins at its weight exactly; this one ends just short of it.
                $tiers[] = [
                    'cost' => $cost,
                    'valueFrom' => null,
                    'kgUpTo' => isset($this->steps[$i + 1]) ? $this->steps[$i + 1][0] - 1e-9 : null,
                ];
            }
        } elseif (self::PALLET === $this->kind) {
            $pallets = (int) max(1, ceil(round($mostKg / $this->palletKg, 9)));
            foreach (range(1, $pallets) as $n) {
                $tiers[] = [
                    'cost' => $n * $this->cost,
                    'valueFrom' => null,
                    'kgUpTo' => $n * $this->palletKg * (1 + 1e-9),
                ];
            }
        } else {
            $tiers[] = ['cost' => $this->cost, 'valueFrom' => null, 'kgUpTo' => null];
        }
        if (null !== $this->freeFrom) {
            array_unshift($tiers, ['cost' => 0.0, 'valueFrom' => $this->freeFrom, 'kgUpTo' => null]);
        }

        return [] === $tiers ? [['cost' => 0.0, 'valueFrom' => null, 'kgUpTo' => null]] : $tiers;
    }

    /** "18", "0=9 30=18", "35 a pallet of 600 kg". */
    public function label(): string
    {
        $free = null === $this->freeFrom ? '' : sprintf(', free from %s', number_format($this->freeFrom));

        return match ($this->kind) {
            self::FLAT => sprintf('%g an order', $this->cost).$free,
            self::WEIGHT => 'by weight '.$this->stepsLabel().$free,
            self::PALLET => sprintf('%g a pallet of %g kg', $this->cost, $this->palletKg).$free,
            default => 'none',
        };
    }

    public function stepsLabel(): string
    {
        return implode(
            ' ',
            array_map(static fn (array $step): string => sprintf('%g=%g', $step[0], $step[1]), $this->steps),
        );
    }

    private function step(float $kilograms): float
    {
        $cost = 0.0;
        foreach ($this->steps as [$from, $stepCost]) {
            if ($from > $kilograms) {
                break;
            }
            $cost = $stepCost;
        }

        return $cost;
    }

    private static function charge(float $cost): float
    {
        return $cost >= 0 ? $cost : throw InvalidValue::negative((string) $cost, 'freight of 0 or more');
    }
}
