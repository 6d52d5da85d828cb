<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/** What new prices of an offer mean, counted for one stock unit, so that a pack that shrinks shows as well. */
final readonly class Repricing
{
    private const SCALE = 12;

    private function __construct(
        private PriceBreaks $old,
        private BigDecimal $oldContent,
        private PriceBreaks $new,
        private BigDecimal $newContent,
    ) {
    }

    /** @param BigDecimal $oldContent stock units in a pack, above 0, as the new one */
    public static function between(
        PriceBreaks $old,
        BigDecimal $oldContent,
        PriceBreaks $new,
        BigDecimal $newContent,
    ): self {
        return new self($old, $oldContent, $new, $newContent);
    }

    /**
     * In percent, to two decimals, where it moves most: over the places at which either price steps, the largest rise;
     * if
     * nothing rises, the largest fall. Null where nothing was asked before. A statistic, so in floating point.
     */
    public function percent(): ?float
    {
        $before = self::steps($this->old, $this->oldContent->toFloat());
        $after = self::steps($this->new, $this->newContent->toFloat());
        $highest = -\INF;
        $lowest = \INF;
        foreach ([...array_keys($before), ...array_keys($after)] as $place) {
            $units = max((float) $place, min($this->oldContent->toFloat(), $this->newContent->toFloat()));
            $old = self::ofUnits($this->old, $this->oldContent, $before, $units);
            if ($old <= 0.0) {
                return null;
            }
            $percent = 100 * (self::ofUnits($this->new, $this->newContent, $after, $units) / $old - 1);
            $highest = max($highest, $percent);
            $lowest = min($lowest, $percent);
        }
        $percent = round($highest, 2) > 0 ? $highest : $lowest;

        return round($percent, 2) + 0.0;
    }

    /**
     * What one stock unit then costs more, below zero where less, when so many are bought at once; before discounts.
     */
    public function ofUnit(BigDecimal $units): BigDecimal
    {
        $at = static fn (PriceBreaks $prices, BigDecimal $content): BigDecimal => $prices
            ->priceFor($units->dividedBy($content, self::SCALE, RoundingMode::HalfUp))
            ->dividedBy($content, self::SCALE, RoundingMode::HalfUp);

        return $at($this->new, $this->newContent)->minus($at($this->old, $this->oldContent));
    }

    /** @return array<int|string, float> price of one stock unit by the stock units from which it holds, rising */
    private static function steps(PriceBreaks $prices, float $content): array
    {
        $steps = [];
        foreach ($prices->byPacks() as $step) {
            $steps[(string) round($step['from']->toFloat() * $content, 6)] = $step['price']->toFloat() / $content;
        }

        return $steps;
    }

    /** @param array<int|string, float> $steps of the same prices */
    private static function ofUnits(PriceBreaks $prices, BigDecimal $content, array $steps, float $units): float
    {
        if (BreakKind::Incremental === $prices->kind && count($steps) > 1) {
            return $prices
                ->priceFor(
                    BigDecimal::of(sprintf('%.6F', $units))->dividedBy($content, self::SCALE, RoundingMode::HalfUp),
                )
                ->toFloat() / $content->toFloat();
        }
        $reached = null;
        foreach ($steps as $from => $price) {
            if (null === $reached || (float) $from <= $units) {
                $reached = $price;
            }
        }

        return $reached ?? 0.0;
    }
}
