<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/**
 * Which quantities a supplier will sell: whole packs (or parts, where the pack may be split), in steps of the
 * multiple, from the minimum. Rounding is always upwards: 2.3 cases means 3 (common practice, no source).
 */
final readonly class BuyingRule
{
    private function __construct(
        public Pack $pack,
        public BigDecimal $minimum,
        public BigDecimal $multiple,
        public bool $split,
    ) {
    }

    /**
     * @param BigNumber|int|string $minimum  fewest packs on one order line
     * @param BigNumber|int|string $multiple packs go in steps of this; 0 or 1 means any whole number
     * @param bool                 $split    whether the supplier opens a pack and sells single stock units
     *
     * @throws InvalidValue
     */
    public static function of(
        Pack $pack,
        BigNumber|int|string $minimum = 1,
        BigNumber|int|string $multiple = 1,
        bool $split = false,
    ): self {
        $minimum = BigDecimal::of($minimum);
        $multiple = BigDecimal::of($multiple);
        if ($minimum->isNegative() || $multiple->isNegative()) {
            throw InvalidValue::negative(
                (string) ($minimum->isNegative() ? $minimum : $multiple),
                'a minimum and a multiple of 0 or more',
            );
        }

        return new self($pack, $minimum, $multiple->isZero() ? BigDecimal::one() : $multiple, $split);
    }

    /**
     * The fewest packs that hold at least so many stock units and can be bought; 0 for a need of 0 or less.
     */
    public function packsFor(BigNumber|int|string $stockUnits): BigDecimal
    {
        $need = BigDecimal::of($stockUnits);
        if (!$need->isPositive()) {
            return BigDecimal::zero();
        }
        if ($this->split) {
            $packs = $need->toScale(0, RoundingMode::Up)->dividedBy($this->pack->content, 3, RoundingMode::Up);
        } else {
            $steps = $need->dividedBy($this->pack->content->multipliedBy($this->multiple), 0, RoundingMode::Up);
            $packs = $steps->multipliedBy($this->multiple);
        }
        if ($packs->isLessThan($this->minimum)) {
            $packs = $this->minimum->dividedBy($this->multiple, 0, RoundingMode::Up)->multipliedBy($this->multiple);
        }

        return $packs->strippedOfTrailingZeros();
    }

    /** The same of some of what is bought at once, which need not reach the minimum by itself. */
    public function objectionToPart(BigNumber|int|string $packs): ?string
    {
        return self::of($this->pack, 0, $this->multiple, $this->split)->objectionTo($packs);
    }

    /**
     * Why so many packs cannot be bought, with the nearest quantity that can; null if they can. Zero always can.
     */
    public function objectionTo(BigNumber|int|string $packs): ?string
    {
        $packs = BigDecimal::of($packs);
        $name = $this->pack->name;
        if ($packs->isZero()) {
            return null;
        }
        $near = (string) $this->packsFor($this->pack->toStockUnits($packs));
        if ($packs->isLessThan($this->minimum)) {
            return sprintf(
                'They sell at least %s (%s). Make it %s, or 0.',
                $this->minimum->strippedOfTrailingZeros(),
                $name,
                $near,
            );
        }
        if ($this->split) {
            return null;
        }
        if (!$packs->remainder($this->multiple)->isZero()) {
            return $this->multiple->isEqualTo(1)
                ? sprintf(
                    'each' === $name
                        ? 'They sell whole ones only. Make it %2$s.'
                        : 'They do not split a %1$s. Make it %2$s.',
                    $name,
                    $near,
                )
                : sprintf(
                    'They sell in steps of %s (%s). Make it %s.',
                    $this->multiple->strippedOfTrailingZeros(),
                    $name,
                    $near,
                );
        }

        return null;
    }
}
