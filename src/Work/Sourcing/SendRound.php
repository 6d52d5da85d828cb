<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Asks the suppliers of a round: the round goes out and the letters into the queue, together or not at all. */
final readonly class SendRound
{
    public function __construct(
        private AllOrNothing $whole,
        private Rounds $rounds,
        private QuoteLetters $letters,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @throws Refused if something is missing */
    public function send(int $id, int $version, Person $person): QuoteRound
    {
        return $this->whole->take(function () use ($id, $version, $person): QuoteRound {
            $round = $this->rounds->lock($id, $version);
            $now = $this->clock->now();
            $round->send($now);
            foreach ($round->quotes() as $quote) {
                $quote->asked($now);
                $this->letters->ask($quote, $person);
            }
            $this->audit->note($person, $round->number, sprintf('Sent to %d suppliers', count($round->quotes())));

            return $round;
        });
    }
}
