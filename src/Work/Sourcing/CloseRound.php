<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Ends a round without buying. */
final readonly class CloseRound
{
    public function __construct(
        private AllOrNothing $whole,
        private Rounds $rounds,
        private QuoteLetters $letters,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** Ends a round without buying. */
    public function close(int $id, int $version, Person $person): void
    {
        $this->whole->take(function () use ($id, $version, $person): void {
            $round = $this->rounds->lock($id, $version);
            $round->settle([], $this->clock->now());
            $this->audit->note($person, $round->number, 'Closed without buying');
            foreach ($round->quotes() as $quote) {
                if (QuoteState::Lost === $quote->state() && [] !== $quote->answers()) {
                    $this->letters->tellLost($quote, $person);
                }
            }
        });
    }
}
