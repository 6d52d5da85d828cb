<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteWays;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;

/** Stock moved from one site to another, lot by lot, what expires first going first. */
final readonly class MoveStock
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Ledger $ledger,
        private Audit $audit,
        private ClockInterface $clock,
        private SiteWays $ways,
    ) {
    }

    /**
     * @param string $key idempotency key from the form: the same transfer asked for twice is booked once
     *
     * @return string|null the transfer's number; null if it was booked already
     *
     * @throws Refused if the site does not hold so much
     */
    public function move(Item $item, Site $from, Site $to, BigDecimal $quantity, Person $by, string $key): ?string
    {
        if (!$quantity->isPositive()) {
            throw new Refused('Nothing to move: the quantity must be above 0.');
        }
        if ($from === $to) {
            throw new Refused(sprintf('%s is where it stands already.', $from->name()));
        }
        if (null === $this->ways->all()->between($from->id, $to->id)) {
            throw new Refused(
                sprintf('Nothing goes from %s to %s; see Ways between sites.', $from->name(), $to->name()),
            );
        }

        return $this->entities->wrapInTransaction(function () use ($item, $from, $to, $quantity, $by, $key): ?string {
            /** @var list<array{lot: string, quantity: string}> $held */
            $held = $this->connection->fetchAllAssociative(
                "SELECT b.lot, b.quantity FROM stock_balance b LEFT JOIN lot l ON l.item_id = b.item_id
                    AND l.number = b.lot
                 WHERE b.item_id = ? AND b.site_id = ? AND b.state = 'available' AND b.quantity > 0
                 ORDER BY l.expires_on IS NULL, l.expires_on, b.lot FOR UPDATE",
                [$item->id, $from->id],
            );
            if (
                false !==
                $this->connection->fetchOne('SELECT 1 FROM stock_movement WHERE idempotency_key = ?', [$key.':0'])
            ) {
                return null;
            }
            $available = array_reduce(
                $held,
                static fn (BigDecimal $sum, array $row): BigDecimal => $sum->plus($row['quantity']),
                BigDecimal::zero(),
            );
            if ($available->isLessThan($quantity)) {
                throw new Refused(
                    sprintf(
                        '%s holds %s of %s, not %s.',
                        $from->name(),
                        $available->strippedOfTrailingZeros(),
                        $item->code,
                        $quantity->strippedOfTrailingZeros(),
                    ),
                );
            }
            $day = $this->clock->now();
            $number = NumberSeries::take($this->connection, NumberSeries::TRANSFERS, $day);
            $postings = [];
            $left = $quantity;
            foreach ($held as $i => $row) {
                $take = BigDecimal::min($left, BigDecimal::of($row['quantity']));
                if (!$take->isPositive()) {
                    break;
                }
                $postings[] = new Posting(
                    $item->id,
                    $from->id,
                    MovementKind::Transfer,
                    $take->negated(),
                    null,
                    $day,
                    $number,
                    $key.':'.$i,
                    $row['lot'],
                );
                $postings[] = new Posting(
                    $item->id,
                    $to->id,
                    MovementKind::Transfer,
                    $take,
                    null,
                    $day,
                    $number,
                    null,
                    $row['lot'],
                );
                $left = $left->minus($take);
            }
            $this->ledger->enter($postings, $by->id);
            $this->audit->note(
                $by,
                $item->code,
                sprintf(
                    '%s: %s moved from %s to %s',
                    $number,
                    $quantity->strippedOfTrailingZeros(),
                    $from->name(),
                    $to->name(),
                ),
            );

            return $number;
        });
    }
}
