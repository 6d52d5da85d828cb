<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\Way;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\TransferLine;
use TallBarrel\Store\Dock\Transfers;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteWays;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/** One site asks another for some of what it has: it is put on the list for the next journey. */
final readonly class AskForStock
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Transfers $transfers,
        private Balances $balances,
        private SiteWays $ways,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param BigDecimal $units stock units
     * @param string     $key   of the form: asked twice, it stands on the list once
     *
     * @return TransferLine|null null if it was asked for before
     *
     * @throws Refused      if nothing goes from there to here, or that site has not so much that is not asked for yet
     * @throws InvalidValue if it cannot be so much
     */
    public function ask(Item $item, Site $from, Site $to, BigDecimal $units, Person $by, string $key): ?TransferLine
    {
        if ($from === $to) {
            throw new Refused(sprintf('%s is where it stands already.', $from->name()));
        }
        $way = $this->ways->all()->between($from->id, $to->id) ?? throw new Refused(
            sprintf('Nothing goes from %s to %s; see Ways between sites.', $from->name(), $to->name()),
        );

        return $this->whole->take(function () use ($item, $from, $to, $units, $by, $key, $way): ?TransferLine {
            $free = $this->free($item, $from);
            if (null !== $this->transfers->lineByKey($key)) {
                return null;
            }
            if ($free->isLessThan($units)) {
                throw new Refused(sprintf(
                    '%s holds %s of %s that nobody asked for yet, not %s.',
                    $from->name(),
                    $free->strippedOfTrailingZeros(),
                    $item->code,
                    $units->strippedOfTrailingZeros(),
                ));
            }

            return $this->put($item, $from, $to, $units, $way, $by, $key);
        });
    }

    /**
     * What was unloaded here and is meant for another site goes on the list for the next journey there; inside the
     * caller's transaction.
     *
     * @return TransferLine|null null if nothing goes there from here
     */
    public function sendOn(Item $item, Site $from, Site $to, BigDecimal $units, Person $by, string $key): ?TransferLine
    {
        $way = $this->ways->all()->between($from->id, $to->id);

        return null === $way ? null : $this->put($item, $from, $to, $units, $way, $by, $key);
    }

    private function put(
        Item $item,
        Site $from,
        Site $to,
        BigDecimal $units,
        Way $way,
        Person $by,
        string $key,
    ): TransferLine {
        $transfer = $this->transfers->toPick($from, $to) ?? $this->begin($from, $to, $way->days, $by);
        $line = $transfer->ask($item, $units, $key);
        $this->entities->flush();
        $this->tell($transfer, $by, sprintf('%s %s asked for', $units->strippedOfTrailingZeros(), $item->code));
        $this->moved->note([$item->id]);

        return $line;
    }

    /** What was asked for is not needed after all. */
    public function drop(Transfer $transfer, Person $by): void
    {
        $this->whole->take(function () use ($transfer, $by): void {
            $transfer->drop();
            $this->tell($transfer, $by, 'Given up');
            $this->moved->note(array_map(static fn (TransferLine $line): int => $line->item->id, $transfer->lines()));
        });
    }

    private function begin(Site $from, Site $to, int $days, Person $by): Transfer
    {
        $now = $this->clock->now();
        $transfer = new Transfer(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::TRANSFERS, $now),
            $from,
            $to,
            $now->setTime(0, 0)->modify(sprintf('+%d days', $days)),
            $by,
            $now,
        );
        $this->entities->persist($transfer);

        return $transfer;
    }

    /** Stock units there that nobody asked for yet; locks what stands there, so that two who ask take turns. */
    private function free(Item $item, Site $from): BigDecimal
    {
        $free = BigDecimal::zero();
        foreach ($this->balances->lockedOf($item->id) as $held) {
            if ($held->site === $from->id && StockState::Available === $held->state) {
                $free = $free->plus($held->quantity);
            }
        }

        return $free->minus($this->transfers->askedFrom($from, $item));
    }

    private function tell(Transfer $transfer, Person $by, string $words): void
    {
        $this->audit->note($by, $transfer->number, sprintf(
            '%s, %s to %s',
            $words,
            $transfer->source->name(),
            $transfer->target->name(),
        ));
    }
}
