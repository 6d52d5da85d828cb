<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

use TallBarrel\Core\InvalidValue;

/**
 * What was seen, each value as likely as the other. Between two of them the quantile goes along a straight line
 * (Hyndman & Fan 1996, type 7).
 */
final readonly class Empirical implements Distribution
{
    /** @param non-empty-list<float> $values sorted */
    private function __construct(private array $values)
    {
    }

    /**
     * @param list<float> $values
     *
     * @throws InvalidValue if there is none
     */
    public static function of(array $values): self
    {
        sort($values);

        return [] === $values ? throw InvalidValue::because('Nothing was seen.') : new self($values);
    }

    public function mean(): float
    {
        return array_sum($this->values) / count($this->values);
    }

    public function deviation(): float
    {
        $mean = $this->mean();

        return sqrt(
            array_sum(array_map(static fn (float $value): float => ($value - $mean) ** 2, $this->values)) /
                max(1, count($this->values) - 1),
        );
    }

    public function cumulative(float $units): float
    {
        return count(array_filter($this->values, static fn (float $value): bool => $value <= $units)) /
            count($this->values);
    }

    public function quantile(float $probability): float
    {
        $at = $probability * (count($this->values) - 1);
        $low = (int) floor($at);
        $above = $this->values[$low + 1] ?? $this->values[$low];

        return $this->values[$low] + ($at - $low) * ($above - $this->values[$low]);
    }

    public function loss(float $units): float
    {
        return array_sum(array_map(static fn (float $value): float => max(0.0, $value - $units), $this->values)) /
            count($this->values);
    }
}
