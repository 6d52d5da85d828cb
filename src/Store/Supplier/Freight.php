<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Store\Type\BigDecimalType;

/** What carriage costs and when it is free, in the supplier's currency. */
#[ORM\Embeddable]
final class Freight
{
    private const KINDS = [FreightTariff::NONE, FreightTariff::FLAT, FreightTariff::WEIGHT, FreightTariff::PALLET];

    /** One of FreightTariff's kinds. */
    #[ORM\Column(name: 'freight_kind', length: 10, options: ['default' => FreightTariff::FLAT])]
    private string $kind = FreightTariff::FLAT;

    /** Of an order, or of one pallet, below the free limit. */
    #[ORM\Column(name: 'freight', type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $cost = null;

    /** Kilograms "=" cost, such as "0=9 30=18", where it goes by weight. */
    #[ORM\Column(name: 'freight_steps', length: 200, options: ['default' => ''])]
    private string $steps = '';

    #[ORM\Column(name: 'pallet_kg', type: BigDecimalType::NAME, precision: 10, scale: 1, nullable: true)]
    private ?BigDecimal $palletKg = null;

    #[ORM\Column(name: 'free_freight_from', type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $freeFrom = null;

    /** What fills a load, where an order pays best as a full one. */
    #[ORM\Column(name: 'full_load_kg', type: BigDecimalType::NAME, precision: 10, scale: 1, nullable: true)]
    private ?BigDecimal $fullLoadKg = null;

    /**
     * @param string $steps for freight by weight
     *
     * @throws InvalidValue
     */
    public function reckonedBy(string $kind, string $steps, ?BigDecimal $palletKg): self
    {
        if (!in_array($kind, self::KINDS, true)) {
            throw InvalidValue::because(
                sprintf('“%s” is no way of reckoning freight; expected none, flat, weight or pallet.', $kind),
            );
        }
        if (FreightTariff::WEIGHT === $kind) {
            FreightTariff::readSteps($steps);
        }
        if (FreightTariff::PALLET === $kind && true !== $palletKg?->isPositive()) {
            throw InvalidValue::because('Freight by the pallet needs the kilograms that fill one.');
        }
        $freight = clone $this;
        $freight->kind = $kind;
        $freight->steps = FreightTariff::WEIGHT === $kind ? trim($steps) : '';
        $freight->palletKg = $palletKg;

        return $freight;
    }

    public function costing(?BigDecimal $cost, ?BigDecimal $fullLoadKg): self
    {
        $freight = clone $this;
        $freight->cost = $cost;
        $freight->fullLoadKg = $fullLoadKg;

        return $freight;
    }

    public function freeFrom(?BigDecimal $value): self
    {
        $freight = clone $this;
        $freight->freeFrom = $value;

        return $freight;
    }

    public function tariff(): FreightTariff
    {
        return self::tariffOf(
            $this->kind,
            $this->cost?->toFloat(),
            $this->steps,
            $this->palletKg?->toFloat(),
            $this->freeFrom?->toFloat(),
        );
    }

    /** As it is kept in columns of the same names. */
    public static function tariffOf(
        string $kind,
        ?float $cost,
        string $steps,
        ?float $palletKg,
        ?float $free,
    ): FreightTariff {
        $cost ??= 0.0;

        return match ($kind) {
            FreightTariff::WEIGHT => FreightTariff::readSteps($steps, $free),
            FreightTariff::PALLET => FreightTariff::byPallet($cost, $palletKg ?? 0.0, $free),
            FreightTariff::NONE => FreightTariff::none(),
            default => 0.0 === $cost ? FreightTariff::none() : FreightTariff::flat($cost, $free),
        };
    }

    public function kind(): string
    {
        return $this->kind;
    }

    public function cost(): ?BigDecimal
    {
        return $this->cost;
    }

    public function steps(): string
    {
        return $this->steps;
    }

    public function palletKg(): ?BigDecimal
    {
        return $this->palletKg;
    }

    public function isFreeFrom(): ?BigDecimal
    {
        return $this->freeFrom;
    }

    public function fullLoadKg(): ?BigDecimal
    {
        return $this->fullLoadKg;
    }
}
