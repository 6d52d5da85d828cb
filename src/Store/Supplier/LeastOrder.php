<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Store\Type\BigDecimalType;

/** The least a supplier takes in one order, as it is kept. */
#[ORM\Embeddable]
final class LeastOrder
{
    /** In the supplier's currency. */
    #[ORM\Column(name: 'minimum_value', type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $value = null;

    #[ORM\Column(name: 'minimum_kg', type: BigDecimalType::NAME, precision: 10, scale: 1, nullable: true)]
    private ?BigDecimal $kilograms = null;

    #[ORM\Column(name: 'minimum_packs', nullable: true)]
    private ?int $packs = null;

    /** @throws InvalidValue if one is below zero */
    public static function of(?BigDecimal $value, ?BigDecimal $kilograms, ?int $packs): self
    {
        $least = new self();
        $least->value = $value;
        $least->kilograms = $kilograms;
        $least->packs = $packs;
        $least->minimum();

        return $least;
    }

    public function minimum(): OrderMinimum
    {
        return OrderMinimum::of($this->value?->toFloat(), $this->kilograms?->toFloat(), $this->packs);
    }

    public function value(): ?BigDecimal
    {
        return $this->value;
    }

    public function kilograms(): ?BigDecimal
    {
        return $this->kilograms;
    }

    public function packs(): ?int
    {
        return $this->packs;
    }
}
