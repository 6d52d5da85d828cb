<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** The mean of the last so many known values. */
final readonly class MovingAverage implements Model
{
    private const WINDOWS = [3, 6, 13, 26];

    private function __construct(public int $window)
    {
    }

    public static function of(int $window): self
    {
        return new self(max(1, $window));
    }

    /**
     * The window whose one-step errors are smallest.
     *
     * @param list<?float> $demand
     */
    public static function fit(array $demand): self
    {
        $known = array_values(array_filter($demand, static fn (?float $value): bool => null !== $value));
        $count = count($known);
        $best = [INF, self::WINDOWS[0]];
        foreach (self::WINDOWS as $window) {
            if ($window * 2 > $count) {
                break;
            }
            // All windows are judged on the same values.
            $from = min(intdiv($count, 2), self::WINDOWS[count(self::WINDOWS) - 1]);
            $sum = (float) array_sum(array_slice($known, $from - $window, $window));
            $squares = 0.0;
            for ($t = $from; $t < $count; ++$t) {
                $error = $known[$t] - $sum / $window;
                $squares += $error * $error;
                $sum += $known[$t] - $known[$t - $window];
            }
            if ($squares < $best[0]) {
                $best = [$squares, $window];
            }
        }

        return new self($best[1]);
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $rolled = [];
        foreach ($origins as $origin) {
            $sum = 0.0;
            $count = 0;
            for ($at = $origin - 1; $at >= 0 && $count < $this->window; --$at) {
                if (null !== $demand[$at]) {
                    $sum += $demand[$at];
                    ++$count;
                }
            }
            $rolled[$origin] = array_fill(0, $ahead, $count > 0 ? $sum / $count : 0.0);
        }

        return $rolled;
    }
}
