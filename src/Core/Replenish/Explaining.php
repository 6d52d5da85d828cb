<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** Tells how a quantity was reached: the lines of its sum, and what else there is to know. */
final readonly class Explaining
{
    public function __construct(
        private Need $need,
        private Levels $levels,
        private StockPosition $position,
        private Requirement $requirement,
        private RoundedToPacks $rounded,
    ) {
    }

    public function explanation(?BringForward $forward): Explanation
    {
        return new Explanation(
            [...$this->wanted(), ...$this->there(), $this->total(), ...$this->ordered(), ...$this->bought()],
            $this->notes($forward),
            $this->position->safety->toFloat(),
            $this->position->reorderPoint->toFloat(),
            BigDecimal::max($this->position->upTo, $this->position->reorderPoint)->toFloat(),
            $this->need->leadTime->days,
        );
    }

    /** @return list<ExplanationLine> */
    private function wanted(): array
    {
        $need = $this->need;
        $lead = $need->leadTime->days;
        $lines = match (true) {
            !$need->policy->kind->aimsAtService() => [
                match ($need->policy->kind) {
                    PolicyKind::Par => self::line(Term::ParLevel, '', $this->position->level),
                    PolicyKind::MinMax => self::line(Term::Maximum, '', $this->position->level, [
                        'minimum' => $this->position->reorderPoint->minus($this->position->plannedSoon)->toFloat(),
                    ]),
                    default => self::line(Term::ByHand, '', $this->position->level),
                },
            ],
            null === $this->levels->lot => [
                self::line(Term::ForecastOverCover, '', $this->position->level, [
                    'lead' => $lead,
                    'cover' => $this->position->reach - $lead,
                    'basis' => $this->levels->basis->value,
                ]),
                $this->safety(),
            ],
            default => [
                self::line(Term::ForecastUntilNext, '', $this->position->level, [
                    'lead' => $lead,
                    'review' => $need->reviewDays,
                ]),
                $this->safety(),
            ],
        };
        foreach ($this->position->planned as [$planned, $amount]) {
            $lines[] = self::line(Term::Planned, '+', $amount, [
                'name' => $planned->name,
                'day' => $planned->day->format('Y-m-d'),
            ]);
        }

        return $lines;
    }

    private function safety(): ExplanationLine
    {
        return self::line(Term::SafetyStock, '+', $this->position->safety, [
            'target' => $this->need->policy->target->kind,
            'level' => $this->need->policy->target->level,
            'spread' => $this->need->leadTime->spread,
        ]);
    }

    /** @return list<ExplanationLine> */
    private function there(): array
    {
        return [
            self::line(Term::OnHand, '−', $this->need->onHand),
            self::line(Term::OnOrder, '−', $this->position->coming),
            self::line(Term::Promised, '+', $this->need->promised),
        ];
    }

    private function total(): ExplanationLine
    {
        return self::line(
            match (true) {
                $this->requirement->due => Term::Needed,
                $this->position->target->isPositive() => Term::CouldFillUp,
                default => Term::MoreThanWanted,
            },
            '',
            $this->requirement->due ? $this->requirement->missing : $this->position->target->abs(),
        );
    }

    /** @return list<ExplanationLine> what makes the order another than the need */
    private function ordered(): array
    {
        $requirement = $this->requirement;
        $lines = [];
        if (null !== $requirement->lot) {
            $lines[] = self::line(Term::InLots, '', $requirement->inLots, ['lot' => $requirement->lot->toFloat()]);
        }
        if (null !== $requirement->rise && $requirement->ahead->isPositive()) {
            $lines[] = self::line(Term::BoughtAhead, '+', $requirement->ahead, [
                'percent' => 100 * $requirement->rise[0],
                'day' => $requirement->rise[1]->format('Y-m-d'),
            ]);
        }
        if ($requirement->tooMuch->isPositive()) {
            $lines[] = self::line(Term::SellsInTime, '−', $requirement->tooMuch, [
                'days' => $this->need->economics->shelfDays ?? 0,
            ]);
        }

        return $lines;
    }

    /** @return list<ExplanationLine> */
    private function bought(): array
    {
        if (!$this->rounded->needed->isPositive()) {
            return [];
        }
        $pack = [
            'pack' => $this->need->rule->pack->name,
            'content' => $this->need->rule->pack->content->toFloat(),
        ];
        $lines = [
            self::line(Term::InPacks, '', $this->rounded->needed, [
                'exact' => $this->rounded->exact->toFloat(),
                ...$pack,
            ]),
        ];
        if (null !== $this->rounded->upToBreak) {
            $lines[] = self::line(Term::UpToBreak, '', $this->rounded->packs, [
                'from' => $this->rounded->upToBreak->toFloat(),
                'saves' => round($this->rounded->saves, 2),
                'costs' => round($this->rounded->costs, 2),
                ...$pack,
            ]);
        }

        return $lines;
    }

    /** @return list<Note> */
    private function notes(?BringForward $forward): array
    {
        $need = $this->need;
        $notes = [];
        foreach ($need->coming->givenUp() as $order) {
            $notes[] = new Note(Remark::ForgottenOrder, [
                'order' => $order->number,
                'units' => $order->stockUnits->toFloat(),
                'daysLate' => $order->daysLate($need->today),
            ]);
        }
        foreach ($need->coming->after($this->position->reach) as $order) {
            $notes[] = new Note(Remark::ComesLater, [
                'order' => $order->number,
                'units' => $order->stockUnits->toFloat(),
                'day' => $order->due->format('Y-m-d'),
            ]);
        }
        if (null !== $forward) {
            $notes[] = new Note(Remark::BringForward, [
                'order' => $forward->order,
                'due' => $forward->due->format('Y-m-d'),
                'by' => $forward->by->format('Y-m-d'),
            ]);
        }
        if (null !== $this->levels->otherCover && $this->requirement->due) {
            $notes[] = new Note(Remark::OtherLot, ['days' => $this->levels->otherCover]);
        }
        if (!$this->requirement->due && !$this->rounded->packs->isPositive()) {
            $notes[] = PolicyKind::ByHand === $need->policy->kind
                ? new Note(Remark::OnlyByHand)
                : new Note(
                    $need->policy->kind->aimsAtService() ? Remark::AboveReorderPoint : Remark::NotBelowMinimum,
                    [
                        'position' => $this->position->position->toFloat(),
                        'point' => $this->position->reorderPoint->toFloat(),
                    ],
                );
        }

        return $notes;
    }

    /** @param array<string, float|int|string> $with */
    private static function line(Term $term, string $sign, BigDecimal $amount, array $with = []): ExplanationLine
    {
        return new ExplanationLine($term, $sign, $amount->toFloat(), $with);
    }
}
