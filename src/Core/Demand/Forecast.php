<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * What is expected to be wanted in the weeks to come, and how far off the method has been.
 */
final readonly class Forecast
{
    /**
     * @param string      $method the method's name, in words
     * @param list<float> $weeks  stock units expected in each coming week; the last one stands for all after it
     * @param float       $sigma  standard deviation of one week's forecast error, in stock units
     * @param float|null  $offBy  sum of absolute errors over sum of demand, last 12 known weeks; null if nothing sold
     */
    public function __construct(public string $method, public array $weeks, public float $sigma, public ?float $offBy)
    {
    }

    public static function none(): self
    {
        return new self('no sales yet', [0.0], 0.0, null);
    }

    /** Stock units expected within so many days from today. */
    public function over(float $days): float
    {
        $sum = 0.0;
        $last = count($this->weeks) - 1;
        for ($week = 0; $days > 0; ++$week) {
            if ($week >= $last) {
                return $sum + $this->weeks[$last] * $days / 7;
            }
            $sum += $this->weeks[$week] * min($days, 7.0) / 7;
            $days -= 7;
        }

        return $sum;
    }

    /** Stock units a day, over the next four weeks. */
    public function perDay(): float
    {
        return $this->over(28) / 28;
    }

    /** Standard deviation of the forecast error over so many days, taking the weeks' errors as independent. */
    public function sigmaOver(float $days): float
    {
        return $this->sigma * sqrt(max(0.0, $days) / 7);
    }
}
