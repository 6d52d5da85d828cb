<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Adjustment;
use TallBarrel\Core\Replenish\BestReorderLevels;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\CycleService;
use TallBarrel\Core\Replenish\DemandRecord;
use TallBarrel\Core\Replenish\FillRate;
use TallBarrel\Core\Replenish\Finding;
use TallBarrel\Core\Replenish\ItemFacts;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Core\Replenish\ItemWorth;
use TallBarrel\Core\Replenish\Move;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Steering;
use TallBarrel\Core\Replenish\StockNow;

/**
 * What was decided of drawn items when the methods were last checked against R and by hand is decided still, figure by
 * figure. Where a method was changed on purpose, tests/Core/Replenish/kept/make.php keeps what it comes to now; what
 * became different is to be looked at before it is committed.
 *
 * @phpstan-type Kept array<mixed>
 */
final class KeptDecisionsTest extends TestCase
{
    use Deciding;

    public const FILE = __DIR__.'/kept/decisions.json';
    private const ITEMS = 60;

    public function testWhatWasDecidedIsDecidedStill(): void
    {
        /** @var array{decisions: list<Kept>, levels: Kept} $kept */
        $kept = json_decode((string) file_get_contents(self::FILE), true, flags: \JSON_THROW_ON_ERROR);
        $now = self::decisions();
        self::assertCount(count($kept['decisions']), $now);
        foreach ($now as $i => $decision) {
            self::assertAlike($kept['decisions'][$i], $decision, 'item '.$i);
        }
    }

    public function testLevelsOfKnownDemandAreWhatTheyWere(): void
    {
        /** @var array{decisions: list<Kept>, levels: Kept} $kept */
        $kept = json_decode((string) file_get_contents(self::FILE), true, flags: \JSON_THROW_ON_ERROR);
        self::assertAlike($kept['levels'], self::levels(), 'levels');
    }

    /** The same but for the last digits, in which two machines may differ. */
    private static function assertAlike(mixed $kept, mixed $now, string $where): void
    {
        if (is_array($kept) && is_array($now)) {
            self::assertSame(array_keys($kept), array_keys($now), $where);
            foreach ($kept as $name => $one) {
                self::assertAlike($one, $now[$name], $where.'/'.$name);
            }
        } elseif ((is_int($kept) || is_float($kept)) && (is_int($now) || is_float($now))) {
            self::assertEqualsWithDelta($kept, $now, 1e-6 * max(1.0, abs($kept)), $where);
        } else {
            self::assertSame($kept, $now, $where);
        }
    }

    /** @return list<Kept> of drawn items at two sites each */
    public static function decisions(): array
    {
        $drawn = new Randomizer(new Mt19937(1127));
        $decisions = [];
        for ($i = 0; $i < self::ITEMS; ++$i) {
            $worth = new ItemWorth(
                $drawn->getInt(50, 900) / 100,
                0 === $drawn->getInt(0, 5) ? null : $drawn->getInt(1000, 2500) / 100,
                0.5,
                0 === $drawn->getInt(0, 4) ? $drawn->getInt(30, 200) : null,
            );
            $item = new ItemFacts(7, 'JAR', 'Jars', Unit::Each, $worth, 0 === $drawn->getInt(0, 6));
            $places = [self::drawnPlace($drawn, $item, 1, $i), self::drawnPlace($drawn, $item, 2, $i + 3)];
            $price = $drawn->getInt(1200, 4000) / 100;
            $offers = [
                self::offer(1, 1, sprintf('1=%.2f 20=%.2f', $price, 0.94 * $price), 1, $drawn->getInt(3, 30)),
                self::offer(2, 2, sprintf('%.2f', 1.1 * $price), 2, $drawn->getInt(2, 20)),
            ];
            foreach (self::decide($places, $offers) as $finding) {
                $decisions[] = self::kept($finding);
            }
        }

        return $decisions;
    }

    private static function drawnPlace(Randomizer $drawn, ItemFacts $item, int $site, int $kind): ItemSite
    {
        $mean = exp($drawn->getInt(-10, 40) / 10);
        $weeks = [160, 116, 60, 30, 8][$kind % 5];
        $sold = $out = [];
        for ($week = 0; $week < $weeks; ++$week) {
            $season = 1 + 0.5 * ($kind % 3) * sin((2 * \M_PI * $week) / 52) / 2;
            $trend = 1 + ($kind % 4) * $week / 400;
            $nothing = 0 === $kind % 4 && $drawn->getInt(0, 9) < 6;
            $bulk = 0 === $drawn->getInt(0, 80) ? 6.0 : 1.0;
            $sold[] = $nothing
                ? 0.0
                : round(max(0.0, $bulk * $mean * $season * $trend * (0.4 + $drawn->getInt(0, 1200) / 1000)));
            $out[] = 0 === $kind % 6 && 0 === $drawn->getInt(0, 15) ? $drawn->getInt(1, 7) : 0;
        }
        $today = self::now()->setTime(0, 0);
        $planned = 0 === $kind % 7 ? [new PlannedDemand('Fete', 2 * $mean, $today->modify('+12 days'))] : [];
        $adjusted = 0 === $kind % 8 ? [new Adjustment(25.0, $today->modify('+40 days'), 'fair')] : [];

        return new ItemSite(
            $item,
            $site,
            new DemandRecord(WeeklyHistory::of($sold, $out), null, [], $adjusted),
            new StockNow(
                BigDecimal::of((int) round($mean * $drawn->getInt(0, 90) / 10)),
                Coming::nothing($today),
                BigDecimal::of(0 === $drawn->getInt(0, 7) ? $drawn->getInt(1, 9) : 0),
                $planned,
            ),
            new Steering(self::drawnPolicy($drawn, $mean, $kind)),
        );
    }

    private static function drawnPolicy(Randomizer $drawn, float $mean, int $kind): ?Policy
    {
        $target = ServiceTarget::of(
            0 === $drawn->getInt(0, 1) ? ServiceTarget::CYCLE : ServiceTarget::FILL,
            [0.9, 0.95, 0.98][$drawn->getInt(0, 2)],
        );
        $amount = ceil(5 * $mean) + 4;

        return match ($kind % 11) {
            0, 1, 2 => null,
            3 => Policy::of(PolicyKind::OrderUpTo, $target, beyond: true),
            4 => Policy::of(PolicyKind::FixedQuantity, $target, $amount),
            5 => Policy::of(PolicyKind::Periodic, $target),
            6 => Policy::of(PolicyKind::MinMax, $target, $amount, floor($amount / 3)),
            7 => Policy::of(PolicyKind::Par, $target, $amount),
            8 => Policy::of(PolicyKind::CoverDays, $target, 45.0),
            9 => Policy::of(PolicyKind::CoverValue, $target, 400.0),
            default => Policy::of(PolicyKind::LotForLot, $target),
        };
    }

    /** @return Kept what is decided, and what it rests on */
    private static function kept(Finding $finding): array
    {
        $outcome = $finding->outcome;
        $forecast = $outcome->forecast();

        return [
            'packs' => (string) $finding->packs,
            'reason' => $outcome->proposal->reason->value,
            'listed' => $finding->listed,
            'chosen' => $finding->chosen,
            'odd' => Note::all($finding->odd),
            'moves' => array_map(
                static fn (Move $move): array => [$move->site, $move->units, $move->saves, $move->risks],
                $finding->moves,
            ),
            'short' => [$finding->shortage?->outInDays, $finding->shortage->sales ?? 0.0],
            'cover' => $outcome->proposal->coverDays,
            'risk' => $outcome->proposal->atRisk,
            'due' => $outcome->proposal->dueInDays,
            'sum' => $outcome->proposal->explanation->toArray(),
            'method' => $forecast->method,
            'weeks' => array_slice($forecast->weeks, 0, 6),
            'spread' => [$forecast->sigmaOver(7), $forecast->sigmaOver(28), $forecast->bias, $forecast->mase],
            'looked' => Note::all($outcome->evidence->considered),
            'class' => $outcome->class,
            'stage' => $outcome->stage()->value,
            'days' => [$outcome->mayGive(), $outcome->daysToNextDelivery(), $outcome->margin()],
        ];
    }

    /** @return Kept reorder points and levels of demand that is known */
    public static function levels(): array
    {
        $levels = [];
        foreach ([0.6, 3.0, 17.0] as $mean) {
            foreach ([1.0, 3.0] as $lumpy) {
                $of = static fn (float $days): Counts => $lumpy > 1
                    ? Counts::negativeBinomial($mean * $days, $lumpy * $mean * $days)
                    : Counts::poisson($mean * $days);
                foreach ([0.9, 0.98] as $share) {
                    foreach ([1.0, 12.0, 60.0] as $lot) {
                        $levels[sprintf('%g %g %g %g', $mean, $lumpy, $share, $lot)] = [
                            FillRate::reorderPoint($share, $lot, $of(9.0), $of(7.0)),
                            CycleService::reorderPoint($share, $lot, $of(9.0), $of(7.0), $of(2.0), $lot > 20),
                        ];
                    }
                }
                $best = BestReorderLevels::of($of(1.0), $of(4.0), 24.0, 0.3, 2.5);
                $levels[sprintf('best %g %g', $mean, $lumpy)] = [
                    $best->reorderPoint,
                    $best->orderUpTo,
                    $best->costPerPeriod,
                ];
            }
        }
        foreach ([[40.0, 12.0], [900.0, 150.0]] as [$mean, $deviation]) {
            foreach (['gamma', 'normal'] as $kind) {
                $of = static fn (float $days): Gamma|Normal => 'gamma' === $kind
                    ? new Gamma($mean * $days, $deviation * sqrt($days))
                    : new Normal($mean * $days, $deviation * sqrt($days));
                foreach ([0.9, 0.98] as $share) {
                    foreach ([10.0, 400.0] as $lot) {
                        $levels[sprintf('%s %g %g %g', $kind, $mean, $share, $lot)] = [
                            FillRate::reorderPoint($share, $lot, $of(9.0), $of(7.0)),
                            CycleService::reorderPoint($share, $lot, $of(9.0), $of(7.0), $of(2.0), $lot > 20),
                        ];
                    }
                }
            }
        }

        return $levels;
    }
}
