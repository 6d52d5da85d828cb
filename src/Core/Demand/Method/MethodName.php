<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

use TallBarrel\Core\InvalidValue;

/** The methods that enter the contest. */
enum MethodName: string
{
    case Naive = 'naive';
    case SeasonalNaive = 'seasonal-naive';
    case Mean = 'mean';
    case MovingAverage = 'moving-average';
    case Simple = 'simple';
    case Holt = 'holt';
    case DampedHolt = 'damped-holt';
    case Theta = 'theta';
    case Autoregression = 'autoregression';
    case HoltWintersAdditive = 'holt-winters-additive';
    case HoltWintersMultiplicative = 'holt-winters-multiplicative';
    case HoltWintersByShares = 'holt-winters-by-shares';
    case SimpleOnSeason = 'simple-on-season';
    case DampedOnSeason = 'damped-on-season';
    case PooledSeason = 'pooled-season';
    case Croston = 'croston';
    case Sba = 'sba';
    case Tsb = 'tsb';
    case Combination = 'combination';

    public function words(): string
    {
        return match ($this) {
            self::Naive => 'same as last time',
            self::SeasonalNaive => 'same as a year ago',
            self::Mean => 'mean of all there is',
            self::MovingAverage => 'moving average',
            self::Simple => 'simple smoothing',
            self::Holt => 'Holt, straight trend',
            self::DampedHolt => 'Holt, damped trend',
            self::Theta => 'theta',
            self::Autoregression => 'autoregression',
            self::HoltWintersAdditive => 'Holt–Winters, added season',
            self::HoltWintersMultiplicative => 'Holt–Winters, multiplied season',
            self::HoltWintersByShares => 'Holt–Winters, trend and season by shares',
            self::SimpleOnSeason => 'smoothing on its own season',
            self::DampedOnSeason => 'damped trend on its own season',
            self::PooledSeason => 'smoothing on the category’s season',
            self::Croston => 'Croston',
            self::Sba => 'Syntetos–Boylan',
            self::Tsb => 'Teunter–Syntetos–Babai',
            self::Combination => 'mean of the best',
        };
    }

    /** How many figures it settles by the series: what is freer fits the past better, and chance with it. */
    public function freedom(): int
    {
        return match ($this) {
            self::Naive, self::SeasonalNaive => 0,
            self::Mean, self::MovingAverage, self::Simple, self::SimpleOnSeason, self::PooledSeason => 1,
            self::Theta, self::Holt, self::Autoregression, self::Croston, self::Sba, self::Tsb => 2,
            self::DampedHolt, self::DampedOnSeason, self::HoltWintersAdditive => 3,
            self::HoltWintersMultiplicative, self::HoltWintersByShares => 3,
            self::Combination => 0,
        };
    }

    /** @throws InvalidValue */
    public static function named(string $name): self
    {
        return self::tryFrom($name) ??
            throw InvalidValue::because(
                sprintf(
                    '“%s” is not a method; expected auto or one of %s.',
                    $name,
                    implode(', ', array_column(self::cases(), 'value')),
                ),
            );
    }
}
