<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** How an agreement to buy so much in a period is coming along: stock units of an item, or money in its currency. */
final readonly class AgreementPace
{
    /**
     * From this share on it is said to be nearly used up; so close to its end it is said to end (common practice, no
     * source).
     */
    private const NEARLY = 0.9;
    private const ENDS_SOON_DAYS = 30;
    /**
     * Behind by more than this share of the whole it would be missed, ahead by as much used up early (common practice,
     * no source).
     */
    private const OFF_PACE = 0.1;

    /**
     * @param float $due      what would have been drawn by now at an even pace
     * @param float $perWeek  needed each week from now on to reach the promise less the tolerance
     * @param float $drawnPerWeek what has been drawn a week so far
     * @param \DateTimeImmutable|null $usedUpOn if it goes on like that; null where it lasts to its end
     */
    private function __construct(
        public float $promised,
        public float $tolerancePercent,
        public float $drawn,
        public float $due,
        public float $perWeek,
        public float $drawnPerWeek,
        public AgreementState $state,
        public ?\DateTimeImmutable $usedUpOn,
    ) {
    }

    /** @param \DateTimeImmutable $to the last day it holds */
    public static function of(
        float $promised,
        float $tolerancePercent,
        \DateTimeImmutable $from,
        \DateTimeImmutable $to,
        float $drawn,
        \DateTimeImmutable $today,
    ): self {
        $days = static fn (\DateTimeImmutable $a, \DateTimeImmutable $b): int => (int) $a
            ->setTime(0, 0)
            ->diff($b->setTime(0, 0))
            ->format('%r%a');
        $length = max(1, $days($from, $to) + 1);
        $passed = max(0, min($length, $days($from, $today)));
        $left = $length - $passed;
        $least = $promised * (1 - $tolerancePercent / 100);
        $due = ($promised * $passed) / $length;
        $perWeek = $left > 0 ? (max(0.0, $least - $drawn) / $left) * 7 : 0.0;
        $state = match (true) {
            $days($from, $today) < 0 => AgreementState::NotBegun,
            $days($today, $to) < 0 => AgreementState::Ended,
            $drawn >= $promised => AgreementState::UsedUp,
            $drawn >= self::NEARLY * $promised => AgreementState::NearlyUsed,
            $due - $drawn > self::OFF_PACE * $promised => AgreementState::Behind,
            $drawn - $due > self::OFF_PACE * $promised => AgreementState::Ahead,
            $left <= self::ENDS_SOON_DAYS => AgreementState::EndsSoon,
            default => AgreementState::OnPace,
        };

        $daysLeft = $drawn > 0 && $passed > 0 ? (int) (max(0.0, $promised - $drawn) / ($drawn / $passed)) : null;
        $usedUp =
            null !== $daysLeft && $daysLeft < $left && $drawn < $promised
                ? $today->setTime(0, 0)->add(new \DateInterval('P'.$daysLeft.'D'))
                : null;

        return new self(
            $promised,
            $tolerancePercent,
            $drawn,
            $due,
            $perWeek,
            $passed > 0 ? ($drawn / $passed) * 7 : 0.0,
            $state,
            $usedUp,
        );
    }

    public function left(): float
    {
        return max(0.0, $this->promised - $this->drawn);
    }

    /** How much may still be drawn before somebody has to be asked. */
    public function room(): float
    {
        return max(0.0, $this->promised * (1 + $this->tolerancePercent / 100) - $this->drawn);
    }
}
