<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Writes to those who have not answered yet. */
final readonly class RemindSuppliers
{
    public function __construct(
        private AllOrNothing $whole,
        private Rounds $rounds,
        private QuoteLetters $letters,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @return int how many were written to: those who have not answered and were not reminded today */
    public function remind(int $id, Person $person): int
    {
        return $this->whole->take(function () use ($id, $person): int {
            $round = $this->rounds->lock($id);
            $now = $this->clock->now();
            $reminded = 0;
            foreach ($round->isOpen() ? $round->quotes() : [] as $quote) {
                if (
                    QuoteState::Asked === $quote->state()
                    && $quote->remindedAt()?->format('Y-m-d') !== $now->format('Y-m-d')
                ) {
                    $this->letters->remind($quote, $person);
                    $quote->reminded($now);
                    ++$reminded;
                }
            }
            if ($reminded > 0) {
                $this->audit->note($person, $round->number, sprintf('Reminded %d', $reminded));
            }

            return $reminded;
        });
    }
}
