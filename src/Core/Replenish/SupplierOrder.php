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
     * Candidates are added in the order of what each unit of the threshold costs to hold, the soonest needed first
     * (common practice, no source): money, kilograms or packs bought early cost little if they are wanted soon.
     *
     * @param float $reached what the order has so far, in the measure of the threshold
     * @param float $threshold a minimum, a free-freight limit, or a full load
     * @param array<int, array{measure: float, cost: float, dueIn: float|null, perDay: float, most: int}> $candidates by
     *      key, one pack of each: its measure, its cost, days until it is due, packs sold a day, most packs that make
     *      sense
     * @param float $saved what is saved once the threshold is reached; INF where nothing can be sent below it
     * @param float $waitRisk margin at risk if nothing is sent until the next chance
     * @param float $holdingShare of the value, a year
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
        // One step for each pack: the second pack of an item waits until the first is sold.
        $steps = [];
        foreach ($candidates as $key => $candidate) {
            if (null === $candidate['dueIn'] || $candidate['measure'] <= 0 || $candidate['perDay'] <= 0) {
                continue;
            }
            for ($pack = 0; $pack < $candidate['most']; ++$pack) {
                $days = $candidate['dueIn'] + ($pack + 0.5) / $candidate['perDay'];
                $cost = ($candidate['cost'] * $holdingShare * $days) / 365;
                $steps[] = [$cost / $candidate['measure'], $key, $cost, $candidate['measure']];
                if ($candidate['measure'] * ($pack + 1) >= $missing) {
                    break;
                }
            }
        }
        usort($steps, static fn (array $a, array $b): int => [$a[0], $a[1]] <=> [$b[0], $b[1]]);
        $fill = [];
        $taken = [];
        $gained = $cost = 0.0;
        foreach ($steps as [, $key, $stepCost, $measure]) {
            if ($gained >= $missing) {
                break;
            }
            $fill[$key] = ($fill[$key] ?? 0.0) + 1;
            $taken[] = [$key, $stepCost, $measure];
            $gained += $measure;
            $cost += $stepCost;
        }
        if ($gained < $missing) {
            return new self(INF === $saved ? self::WAIT : self::SEND, [], $missing, 0.0, 0.0, $waitRisk);
        }
        // What the last packs made superfluous is taken out again, the dearest first.
        usort($taken, static fn (array $a, array $b): int => $b[1] <=> $a[1]);
        foreach ($taken as [$key, $stepCost, $measure]) {
            if ($gained - $measure >= $missing) {
                $gained -= $measure;
                $cost -= $stepCost;
                --$fill[$key];
            }
        }
        $fill = array_filter($fill, static fn (float $packs): bool => $packs > 0);
        if (INF === $saved) {
            return new self($waitRisk < $cost ? self::WAIT : self::FILL, $fill, $missing, $cost, 0.0, $waitRisk);
        }

        return new self($cost < $saved ? self::FILL : self::SEND, $fill, $missing, $cost, $saved, $waitRisk);
    }
}
