<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\TransferCount;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\TransferLine;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * What another site sent is counted where it came: good things are there to sell, others are held back, and what is
 * missing never left or is lost.
 */
final readonly class ReceiveTransfer
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Balances $balances,
        private Ledger $ledger,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, TransferCount> $arrivals by line; a line that is not among them came as it was sent
     * @param Problems            $problems takes what stands in the way, by line; nothing is booked then
     *
     * @throws Refused unless it is on its way
     */
    public function receive(Transfer $transfer, array $arrivals, Person $by, Problems $problems): void
    {
        $this->whole->take(function () use ($transfer, $arrivals, $by, $problems): void {
            $this->entities->lock($transfer, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($transfer);
            $transfer->mustBe(TransferState::UnderWay);
            $postings = [];
            foreach ($transfer->lines() as $line) {
                $sent = $line->sent() ?? BigDecimal::zero();
                if (!$sent->isPositive()) {
                    continue;
                }
                $arrival = $arrivals[$line->id] ?? TransferCount::asSent($sent);
                try {
                    $line->arrive($arrival);
                    $this->mustStandThere($transfer, $line, $arrival);
                } catch (InvalidValue|Refused $problem) {
                    $problems->refuse('came-'.$line->id, $problem->getMessage());
                    continue;
                }
                array_push($postings, ...$this->postings($transfer, $line, $arrival));
                $this->tell($transfer, $line, $arrival, $by);
            }
            if (!$problems->areNone()) {
                throw new Refused('Nothing is booked yet; see the lines below.');
            }
            $transfer->arrive($this->clock->now()->setTime(0, 0));
            $this->entities->flush();
            $this->ledger->enter($postings, $by->id);
            $this->audit->note($by, $transfer->number, sprintf('Arrived at %s', $transfer->target->name()));
        });
    }

    /** @throws Refused if more came than was sent, and there was not so much */
    private function mustStandThere(Transfer $transfer, TransferLine $line, TransferCount $arrival): void
    {
        $more = $arrival->beyond();
        if (!$more->isPositive()) {
            return;
        }
        $place = new StockPlace($transfer->source, StockState::Available, $line->lot());
        $stands = $this->balances->lockedAt($line->item->id, $place);
        if ($stands->isLessThan($more)) {
            throw new Refused(sprintf(
                '%s came, %s left, and %s has only %s more.',
                $arrival->came,
                $arrival->sent->strippedOfTrailingZeros(),
                $transfer->source->name(),
                $stands->strippedOfTrailingZeros(),
            ));
        }
    }

    /** @return list<Posting> together as many as came, were lost or never left, as are no longer on their way */
    private function postings(Transfer $transfer, TransferLine $line, TransferCount $arrival): array
    {
        $target = $transfer->target->id;
        $moves = [
            [$target, StockState::OnItsWay, $arrival->sent->negated(), MovementKind::Transfer],
            [$target, StockState::Available, $arrival->good(), MovementKind::Transfer],
            [$target, StockState::Held, $arrival->bad, MovementKind::Transfer],
            [$transfer->source->id, StockState::Available, $arrival->backThere(), MovementKind::Transfer],
        ];
        if ($arrival->lost) {
            // All of it came first, and what is gone left our stock then: the ledger says what was lost, and when.
            $moves[] = [$target, StockState::Available, $arrival->missing(), MovementKind::Transfer];
            $moves[] = [$target, StockState::Available, $arrival->missing()->negated(), MovementKind::Adjusted];
        }
        $postings = [];
        foreach ($moves as $n => [$site, $state, $units, $kind]) {
            if (!$units->isZero()) {
                $postings[] = new Posting(
                    $line->item->id,
                    $site,
                    $kind,
                    $units,
                    null,
                    $this->clock->now()->setTime(0, 0),
                    $transfer->number,
                    sprintf('transfer-in-%d-%d-%d', $transfer->id, $line->id, $n),
                    $line->lot(),
                    $state,
                );
            }
        }

        return $postings;
    }

    private function tell(Transfer $transfer, TransferLine $line, TransferCount $arrival, Person $by): void
    {
        if ($arrival->came->isEqualTo($arrival->sent) && $arrival->bad->isZero()) {
            return;
        }
        $this->audit->note($by, $transfer->number, sprintf(
            '%s: %s left, %s came%s%s',
            $line->item->code,
            $arrival->sent->strippedOfTrailingZeros(),
            $arrival->came->strippedOfTrailingZeros(),
            $arrival->bad->isPositive()
                ? sprintf(', %s not good', $arrival->bad->strippedOfTrailingZeros()) : '',
            '' === $line->words() ? '' : ': '.$line->words(),
        ));
    }
}
