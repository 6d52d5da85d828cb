<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/** What new prices of an offer mean, counted for one stock unit, so that a pack that shrinks shows as well. */
final readonly class Repricing
{
    private const SCALE = 12;

    private function __construct(private PriceBreaks $old, private BigDecimal $oldContent, private PriceBreaks $new, private BigDecimal $newContent)
    {
    }

    /**
     * @param BigDecimal $oldContent stock units in a pack, above 0, as the new one
     */
    public static function between(PriceBreaks $old, BigDecimal $oldContent, PriceBreaks $new, BigDecimal $newContent): self
    {
        return new self($old, $oldContent, $new, $newContent);
    }

    /**
     * In percent to two decimals, where it moves most: over the places at which either price steps, the largest rise;
     * if nothing rises, the largest fall. Null where nothing was asked before.
     */
    public function percent(): ?BigDecimal
    {
        $highest = $lowest = null;
        foreach ($this->places() as $units) {
            [$before, $after] = [self::at($this->old, $this->oldContent, $units), self::at($this->new, $this->newContent, $units)];
            if ($before->isZero()) {
                return null;
            }
            $percent = $after->dividedBy($before, self::SCALE, RoundingMode::HalfUp)->minus(1)->multipliedBy(100)->toScale(2, RoundingMode::HalfUp);
            $highest = null === $highest || $percent->isGreaterThan($highest) ? $percent : $highest;
            $lowest = null === $lowest || $percent->isLessThan($lowest) ? $percent : $lowest;
        }

        return true === $highest?->isPositive() ? $highest : $lowest;
    }

    /** What one stock unit then costs more, below zero where less, when so many are bought at once; before discounts. */
    public function ofUnit(BigDecimal $units): BigDecimal
    {
        return self::at($this->new, $this->newContent, $units)->minus(self::at($this->old, $this->oldContent, $units));
    }

    /** @return list<BigDecimal> in stock units */
    private function places(): array
    {
        $places = [];
        foreach ([[$this->old, $this->oldContent], [$this->new, $this->newContent]] as [$prices, $content]) {
            foreach ($prices->byPacks() as $step) {
                $units = BigDecimal::max($step['from'], 1)->multipliedBy($content);
                $places[(string) $units->strippedOfTrailingZeros()] = $units;
            }
        }

        return array_values($places);
    }

    private static function at(PriceBreaks $prices, BigDecimal $content, BigDecimal $units): BigDecimal
    {
        return $prices->priceFor($units->dividedBy($content, self::SCALE, RoundingMode::HalfUp))->dividedBy($content, self::SCALE, RoundingMode::HalfUp);
    }
}
