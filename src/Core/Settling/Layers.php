<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;

/**
 * What came of a lot, each at its cost, in the order it came; what goes is taken from the first (first in, first out:
 * IAS 2, paragraph 27).
 */
final class Layers
{
    /** @var array<string, array{BigDecimal, BigDecimal}> units that came and the cost of one, the first first */
    private array $came = [];

    /**
     * @param string     $key   names the layer
     * @param BigDecimal $units above 0
     * @param BigDecimal $cost  of one
     */
    public function add(string $key, BigDecimal $units, BigDecimal $cost): void
    {
        $this->came[$key] = [$units, $cost];
    }

    /** It did not come, or less of it did; nothing where there is no such layer. */
    public function lessen(string $key, BigDecimal $units): void
    {
        if (isset($this->came[$key])) {
            $this->came[$key][0] = BigDecimal::max($this->came[$key][0]->minus($units), BigDecimal::zero());
        }
    }

    /** What is there is counted anew: no layer before holds any of it. */
    public function forget(): void
    {
        $this->came = [];
    }

    /**
     * @param BigDecimal $there   units there are; no more of them are in layers than came
     * @param BigDecimal $average cost of one that no layer holds
     *
     * @return BigDecimal what they cost, not rounded; 0 where there are none
     */
    public function worth(BigDecimal $there, BigDecimal $average): BigDecimal
    {
        if (!$there->isPositive()) {
            return BigDecimal::zero();
        }
        $all = BigDecimal::sum(BigDecimal::zero(), ...array_column($this->came, 0));
        $gone = BigDecimal::max($all->minus($there), BigDecimal::zero());
        $worth = BigDecimal::max($there->minus($all), BigDecimal::zero())->multipliedBy($average);
        foreach ($this->came as [$units, $cost]) {
            $taken = BigDecimal::min($units, $gone);
            $gone = $gone->minus($taken);
            $worth = $worth->plus($units->minus($taken)->multipliedBy($cost));
        }

        return $worth;
    }
}
