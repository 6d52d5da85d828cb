<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteLetter;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * Takes a supplier's answer in, whichever way it came: each is one transaction on the locked round.
 *
 * @phpstan-import-type AnswerLine from QuoteAnswer
 */
final readonly class AnswerQuote
{
    public function __construct(
        private AllOrNothing $whole,
        private Rounds $rounds,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param list<AnswerLine> $lines
     *
     * @throws InvalidValue|Refused
     */
    public function answer(
        Quote $quote,
        string $via,
        int $leadDays,
        ?\DateTimeImmutable $validUntil,
        ?BigDecimal $charges,
        string $note,
        array $lines,
        ?Person $typedBy = null,
    ): QuoteAnswer {
        if ($leadDays < 0 || $leadDays > 365) {
            throw InvalidValue::because(sprintf('%d days to deliver is out of range; expected 0 to 365.', $leadDays));
        }

        return $this->whole->take(function () use (
            $quote,
            $via,
            $leadDays,
            $validUntil,
            $charges,
            $note,
            $lines,
            $typedBy,
        ): QuoteAnswer {
            $round = $this->rounds->lock($quote->round->id);
            $now = $this->clock->now();
            $answer = new QuoteAnswer(
                $quote,
                $now,
                $via,
                $round->isLate($now),
                $leadDays,
                $validUntil,
                $charges,
                mb_substr(trim($note), 0, 1000),
                $lines,
            );
            foreach ($round->items() as $item) {
                $answer->prices($item);
            }
            $quote->answer($answer);
            $quote->keep(
                new QuoteLetter(
                    $quote,
                    $now,
                    false,
                    sprintf('Answer %d, %s%s', $answer->revision, $via, $answer->late ? ', late' : ''),
                    '' === $note
                        ? sprintf('%d of %d lines quoted, %d days.', count($lines), count($round->items()), $leadDays)
                        : $note,
                ),
            );
            $this->audit->note(
                $typedBy,
                $round->number,
                sprintf('%s answered%s', $quote->supplier->name(), 1 < $answer->revision ? ' again' : ''),
            );

            return $answer;
        });
    }

    /** @throws Refused */
    public function decline(Quote $quote, string $reason, ?Person $typedBy = null): void
    {
        $this->whole->take(function () use ($quote, $reason, $typedBy): void {
            $round = $this->rounds->lock($quote->round->id);
            $quote->decline($reason);
            $quote->keep(
                new QuoteLetter(
                    $quote,
                    $this->clock->now(),
                    false,
                    'Declined',
                    '' === trim($reason) ? 'No reason given.' : trim($reason),
                ),
            );
            $this->audit->note($typedBy, $round->number, sprintf('%s declined', $quote->supplier->name()));
        });
    }
}
