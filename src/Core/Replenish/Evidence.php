<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Mark;

/**
 * What a planning run saw of a place, to be shown beside what it came to.
 *
 * @phpstan-import-type NoteData from Note
 * @phpstan-type MarkData array{ago: int, kind: string, demand: float, taken: float|null, kept: bool}
 * @phpstan-type EvidenceData array{sold: list<float>, wanted: list<float|null>, marks: list<MarkData>,
 *      arrivals: list<array{string, float, string, bool|null}>, planned: list<array{string, float, string}>,
 *      met: list<int>,
 *      promisedDays: int, considered: list<NoteData>, forward: array{string, string, string}|null, needed: float}
 */
final readonly class Evidence
{
    private const WEEKS = 52;

    /**
     * @param list<float>         $sold         a week, oldest first
     * @param list<float|null>    $wanted       a week, cleaned; null where nothing is known
     * @param list<MarkData>      $marks        what was cleaned, by weeks ago
     * @param list<OpenOrder>     $arrivals
     * @param list<PlannedDemand> $planned
     * @param list<int>           $met          lead times of the latest receipts, in days
     * @param int                 $promisedDays the supplier's lead time
     * @param list<Note>          $considered   what else was looked at
     * @param float               $needed       stock units, before rounding to what can be bought
     */
    private function __construct(
        public array $sold,
        public array $wanted,
        public array $marks,
        public array $arrivals,
        public array $planned,
        public array $met,
        public int $promisedDays,
        public array $considered,
        public ?BringForward $forward,
        public float $needed,
    ) {
    }

    /** @param list<Note> $considered */
    public static function of(
        ItemSite $place,
        Cleaning $cleaning,
        Sourced $sourced,
        Proposal $proposal,
        array $considered,
    ): self {
        $weeks = $place->record->own->weeks();
        $round = static fn (?float $figure): ?float => null === $figure ? null : round($figure, 2);

        return new self(
            $place->record->own->lastSold(self::WEEKS),
            array_map($round, $cleaning->history->last(self::WEEKS)->demand),
            array_map(
                static fn (Mark $mark): array => [
                    'ago' => $weeks - $mark->week,
                    'kind' => $mark->kind,
                    'demand' => round($mark->demand, 2),
                    'taken' => $round($mark->taken),
                    'kept' => $mark->kept,
                ],
                $cleaning->marks,
            ),
            $place->stock->coming->orders,
            $place->stock->planned,
            $sourced->supplier->leadTimesMet ?? [],
            $sourced->offer->leadDays ?? Sourced::USUAL_DAYS,
            $considered,
            $proposal->forward,
            $proposal->needed->toFloat(),
        );
    }

    /** @return EvidenceData */
    public function toArray(): array
    {
        $forward = $this->forward;

        return [
            'sold' => $this->sold,
            'wanted' => $this->wanted,
            'marks' => $this->marks,
            'arrivals' => array_map(
                static fn (OpenOrder $order): array => [
                    $order->number,
                    $order->stockUnits->toFloat(),
                    $order->due->format('Y-m-d'),
                    $order->verdict,
                ],
                $this->arrivals,
            ),
            'planned' => array_map(
                static fn (PlannedDemand $planned): array => [
                    $planned->name,
                    $planned->stockUnits,
                    $planned->day->format('Y-m-d'),
                ],
                $this->planned,
            ),
            'met' => $this->met,
            'promisedDays' => $this->promisedDays,
            'considered' => Note::all($this->considered),
            'forward' => null === $forward
                    ? null
                    : [$forward->order, $forward->by->format('Y-m-d'), $forward->due->format('Y-m-d')],
            'needed' => $this->needed,
        ];
    }

    /**
     * @param EvidenceData $data
     * @param \DateTimeZone $zone of the days in it
     */
    public static function fromArray(array $data, \DateTimeZone $zone): self
    {
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day, $zone);
        $forward = $data['forward'];

        return new self(
            $data['sold'],
            $data['wanted'],
            $data['marks'],
            array_map(
                static fn (array $order): OpenOrder => new OpenOrder(
                    $order[0],
                    BigDecimal::of(number_format($order[1], 3, '.', ''))->strippedOfTrailingZeros(),
                    $day($order[2]),
                    $order[3],
                ),
                $data['arrivals'],
            ),
            array_map(
                static fn (array $planned): PlannedDemand => new PlannedDemand(
                    $planned[0],
                    (float) $planned[1],
                    $day($planned[2]),
                ),
                $data['planned'],
            ),
            $data['met'],
            $data['promisedDays'],
            array_map(Note::fromArray(...), $data['considered']),
            null === $forward ? null : new BringForward($forward[0], $day($forward[1]), $day($forward[2])),
            $data['needed'],
        );
    }
}
