<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * One supplier's order as a whole: whether to send it as it is, to fill it up to what the supplier asks for, or to wait
 * until the next chance to order. Money is in one currency.
 */
final readonly class SupplierOrder
{
    public const SEND = 'send';
    public const FILL = 'fill';
    public const WAIT = 'wait';

    /**
     * @param string                       $advice   one of the constants
     * @param array<int, float>            $fill     packs to add, by candidate
     * @param float                        $missing  what the order lacks, in the measure of the threshold
     * @param float                        $fillCost cost of holding what is bought early
     * @param float                        $saved    what reaching the threshold saves
     * @param float                        $waitRisk margin at risk while waiting
     */
    private function __construct(
        public string $advice,
        public array $fill,
        public float $missing,
        public float $fillCost,
        public float $saved,
        public float $waitRisk,
    ) {
    }

    /**
     * Steps are taken in the order of what a unit of the threshold costs to hold, the soonest needed first (common
     * practice, no source): money, kilograms or packs bought early cost little if they are wanted soon. A later step of
     * an item never comes without the earlier ones.
     *
     * @param float                     $reached      what the order has so far, in the measure of the threshold
     * @param float                     $threshold    a minimum, a free-freight limit, or a full load
     * @param array<int, iterable<FillStep>> $candidates by key, what could be added of each in turn; asked for only as
     *                                                   far as it is needed
     * @param float                     $saved        what is saved once the threshold is reached; INF where nothing
     *                                                can be sent below it
     * @param float                     $waitRisk     margin at risk if nothing is sent until the next chance
     * @param float                     $holdingShare of the value, a year
     */
    public static function complete(
        float $reached,
        float $threshold,
        array $candidates,
        float $saved,
        float $waitRisk,
        float $holdingShare,
    ): self {
        $missing = max(0.0, $threshold - $reached);
        if ($missing <= 0.0) {
            return new self(self::SEND, [], 0.0, 0.0, 0.0, $waitRisk);
        }
        $holding = static fn (FillStep $step): float => ($step->cost * $holdingShare * $step->days) / 365;
        $taken = [];
        $gained = 0.0;
        foreach (self::cheapestFirst($candidates, $holding) as $key => $step) {
            $taken[$key][] = $step;
            $gained += $step->measure;
            if ($gained >= $missing) {
                break;
            }
        }
        if ($gained < $missing) {
            return new self(INF === $saved ? self::WAIT : self::SEND, [], $missing, 0.0, 0.0, $waitRisk);
        }
        $taken = self::withoutSuperfluous($taken, $gained - $missing, $holding);
        $fill = array_map(
            static fn (array $steps): float => array_sum(
                array_map(static fn (FillStep $one): float => $one->packs, $steps),
            ),
            $taken,
        );
        $cost = array_sum(array_map($holding, array_merge(...array_values($taken))));
        if (INF === $saved) {
            return new self($waitRisk < $cost ? self::WAIT : self::FILL, $fill, $missing, $cost, 0.0, $waitRisk);
        }

        return new self($cost < $saved ? self::FILL : self::SEND, $fill, $missing, $cost, $saved, $waitRisk);
    }

    /**
     * @param array<int, iterable<FillStep>> $candidates
     * @param callable(FillStep): float      $holding
     *
     * @return \Generator<int, FillStep> by key of the candidate
     */
    private static function cheapestFirst(array $candidates, callable $holding): \Generator
    {
        // The next step of each candidate; never cheaper than the one ahead of it, whatever a price break makes of it.
        $next = new \SplMinHeap();
        $queue = static function (int $key, \Iterator $steps, float $dearest) use ($next, $holding): void {
            $step = $steps->valid() ? $steps->current() : null;
            if ($step instanceof FillStep && $step->measure > 0) {
                $next->insert([max($dearest, $holding($step) / $step->measure), $key, $step, $steps]);
            }
        };
        foreach ($candidates as $key => $steps) {
            $steps = is_array($steps) ? new \ArrayIterator($steps) : new \IteratorIterator($steps);
            $steps->rewind();
            $queue($key, $steps, 0.0);
        }
        while (!$next->isEmpty()) {
            [$dearest, $key, $step, $steps] = $next->extract();
            yield $key => $step;
            $steps->next();
            $queue($key, $steps, $dearest);
        }
    }

    /**
     * What the last steps made superfluous is taken out again, the dearest to hold first.
     *
     * @param array<int, non-empty-list<FillStep>> $taken
     * @param callable(FillStep): float            $holding
     *
     * @return array<int, non-empty-list<FillStep>>
     */
    private static function withoutSuperfluous(array $taken, float $spare, callable $holding): array
    {
        do {
            $out = null;
            foreach ($taken as $key => $steps) {
                $last = $steps[count($steps) - 1];
                if ($last->measure <= $spare && (null === $out || $holding($last) > $out[1])) {
                    $out = [$key, $holding($last), $last->measure];
                }
            }
            if (null !== $out) {
                array_pop($taken[$out[0]]);
                $taken = array_filter($taken, static fn (array $steps): bool => [] !== $steps);
                $spare -= $out[2];
            }
        } while (null !== $out);

        return $taken;
    }
}
