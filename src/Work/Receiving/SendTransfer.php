<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\TransferLine;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\SiteWays;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\HeldLots;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\Lots;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/** What was picked leaves one site: from now on it is on its way to the other. */
final readonly class SendTransfer
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Balances $balances,
        private Lots $lots,
        private Ledger $ledger,
        private SiteWays $ways,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, BigDecimal> $picked   stock units by line; a line that is not among them is not sent
     * @param array<int, string>     $lots     by line, where one was chosen; else what expires first goes first
     * @param Problems               $problems takes what stands in the way, by line; nothing leaves then
     *
     * @throws Refused if it has left already, or nothing was picked
     */
    public function send(Transfer $transfer, array $picked, array $lots, Person $by, Problems $problems): void
    {
        $this->whole->take(function () use ($transfer, $picked, $lots, $by, $problems): void {
            $this->entities->lock($transfer, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($transfer);
            $transfer->mustBe(TransferState::ToPick);
            $postings = [];
            $taken = [];
            $lines = $transfer->lines();
            usort($lines, static fn (TransferLine $a, TransferLine $b): int => $a->item->id <=> $b->item->id);
            foreach ($lines as $line) {
                $units = $picked[$line->id] ?? BigDecimal::zero();
                try {
                    if ($units->isPositive()) {
                        $line->want($units);
                    } else {
                        $line->pick('', BigDecimal::zero());
                        continue;
                    }
                    $parts = $this->parts($transfer, $line, $units, $lots[$line->id] ?? '', $taken);
                } catch (InvalidValue|Refused $problem) {
                    $problems->refuse('picked-'.$line->id, $problem->getMessage());
                    continue;
                }
                $from = $line;
                foreach ($parts as $n => [$lot, $some]) {
                    if (0 === $n) {
                        $line->want($some);
                    } else {
                        $from = $transfer->apart($line, $lot, $some);
                    }
                    $from->pick($lot, $some);
                    array_push($postings, ...$this->leaves($transfer, $line, $n, $lot, $some));
                }
            }
            if ([] === $postings && $problems->areNone()) {
                throw new Refused('Nothing was picked; type how many leave, or give the list up.');
            }
            if (!$problems->areNone()) {
                throw new Refused('Nothing left yet; see the lines below.');
            }
            $today = $this->clock->now()->setTime(0, 0);
            $way = $this->ways->all()->between($transfer->source->id, $transfer->target->id);
            $transfer->leave($today, $today->modify(sprintf('+%d days', $way->days ?? 0)));
            $this->entities->flush();
            $this->ledger->enter($postings, $by->id);
            $this->audit->note($by, $transfer->number, sprintf(
                'Left %s for %s',
                $transfer->source->name(),
                $transfer->target->name(),
            ));
        });
    }

    /**
     * Out of which lots: the one that was chosen, or what expires first.
     *
     * @param array<string, BigDecimal> $taken by item and lot, for lines before; what is taken now is added
     *
     * @return list<array{string, BigDecimal}>
     *
     * @throws Refused if there is not so much
     */
    private function parts(Transfer $transfer, TransferLine $line, BigDecimal $units, string $lot, array &$taken): array
    {
        $left = $units;
        $parts = [];
        $there = BigDecimal::zero();
        foreach ($this->standing($line->item, $transfer) as $held) {
            if ('' !== $lot && $lot !== $held->lot) {
                continue;
            }
            $key = $line->item->id.'|'.$held->lot;
            $free = $held->quantity->minus($taken[$key] ?? 0);
            $there = $there->plus(BigDecimal::max($free, 0));
            $take = BigDecimal::min($left, $free);
            if ($take->isPositive()) {
                $parts[] = [$held->lot, $take];
                $taken[$key] = $take->plus($taken[$key] ?? 0);
                $left = $left->minus($take);
            }
        }
        if ($left->isPositive()) {
            throw new Refused(sprintf(
                '%s holds %s of %s%s, not %s.',
                $transfer->source->name(),
                $there->strippedOfTrailingZeros(),
                $line->item->code,
                '' === $lot ? '' : ' in lot '.$lot,
                $units->strippedOfTrailingZeros(),
            ));
        }

        return $parts;
    }

    /** @return list<HeldLots> what may go, what expires first first */
    private function standing(Item $item, Transfer $transfer): array
    {
        $held = array_values(array_filter(
            $this->balances->lockedOf($item->id),
            static fn (HeldLots $held): bool => $held->site === $transfer->source->id
                && StockState::Available === $held->state && $held->quantity->isPositive(),
        ));
        $ends = $this->lots->ends($item->id);
        usort($held, static fn (HeldLots $a, HeldLots $b): int => [
            $ends[$a->lot] ?? '9999', $a->lot,
        ] <=> [$ends[$b->lot] ?? '9999', $b->lot]);

        return $held;
    }

    /** @return list<Posting> */
    private function leaves(Transfer $transfer, TransferLine $line, int $n, string $lot, BigDecimal $units): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $key = sprintf('transfer-%d-%d-%d', $transfer->id, $line->id, $n);

        return [
            new Posting($line->item->id, $transfer->source->id, MovementKind::Transfer, $units->negated(), null,
                $today, $transfer->number, $key, $lot),
            new Posting($line->item->id, $transfer->target->id, MovementKind::Transfer, $units, null,
                $today, $transfer->number, null, $lot, StockState::OnItsWay),
        ];
    }
}
