<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\BookLine;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\BookPeriod;
use TallBarrel\Store\Settle\BookPeriods;
use TallBarrel\Store\Stock\StockValue;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * What happened in a month, as entries for the bookkeeping: goods received, charges, returns, invoices, credit notes,
 * payments, and what left the stock. What the stock account and the ledger of the stock differ by after all that is
 * what was sold or used, so that the account always stands at what the stock is worth.
 */
final readonly class KeepBooks
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private BookPeriods $periods,
        private GoodsEntries $goods,
        private PaperEntries $papers,
        private StockValue $value,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** The month whose turn it is, as 2026-11: after the last that went, else that in which the stock began. */
    public function next(): string
    {
        $last = $this->periods->last();
        if (null !== $last) {
            return (new \DateTimeImmutable($last->month.'-01'))->modify('+1 month')->format('Y-m');
        }
        $first = $this->connection->fetchOne('SELECT MIN(day) FROM stock_movement');

        return substr(is_string($first) ? $first : $this->clock->now()->format('Y-m-d'), 0, 7);
    }

    /**
     * What would be booked for the month whose turn it is, until its end or today.
     *
     * @return list<BookEntry> by day
     */
    public function entries(): array
    {
        $month = $this->next();
        $first = new \DateTimeImmutable($month.'-01');
        $end = min($first->modify('last day of this month'), $this->clock->now()->setTime(0, 0));
        $known = $this->periods->keys();
        $entries = array_values(array_filter(
            [...$this->goods->until($first, $end), ...$this->papers->until($end)],
            static fn (BookEntry $entry): bool => !isset($known[$entry->key]) && !$entry->isEmpty(),
        ));
        usort($entries, static fn (BookEntry $a, BookEntry $b): int => [$a->day, $a->key] <=> [$b->day, $b->key]);

        return [...$entries, ...$this->sold($month, $end, $entries)];
    }

    /**
     * @param list<BookEntry> $entries
     *
     * @return list<BookEntry>
     */
    private function sold(string $month, \DateTimeImmutable $end, array $entries): array
    {
        $booked = $this->periods->stock();
        foreach ($entries as $entry) {
            foreach ($entry->lines as $line) {
                $booked = LedgerAccount::Stock === $line->account ? $booked->plus($line->amount) : $booked;
            }
        }
        $worth = BigDecimal::zero();
        foreach ($this->value->byCategory($end) as $row) {
            $worth = $worth->plus($row['value']);
        }
        $sold = BookEntry::of(
            'sold-'.$month,
            $end,
            $month,
            'What was sold or used, at average cost',
            [LedgerAccount::Stock->value => $worth->minus($booked)->toScale(2, RoundingMode::HalfUp)],
            LedgerAccount::CostOfSales,
        );

        return $sold->isEmpty() ? [] : [$sold];
    }

    /**
     * @param string $month whose turn it was thought to be
     *
     * @throws Refused unless it is over, and its turn
     */
    public function close(string $month, Person $by): BookPeriod
    {
        return $this->whole->take(function () use ($month, $by): BookPeriod {
            // Two who close at once do it one after the other.
            $this->connection->fetchOne('SELECT id FROM business FOR UPDATE');
            if ($month !== $this->next()) {
                throw new Refused(sprintf('%s is closed already, or its turn has not come.', $month));
            }
            $end = (new \DateTimeImmutable($month.'-01'))->modify('last day of this month');
            if ($end->format('Y-m-d') >= $this->clock->now()->format('Y-m-d')) {
                throw new Refused(sprintf('%s is not over yet.', $end->format('F Y')));
            }
            $period = new BookPeriod($month, $by, $this->clock->now());
            foreach ($this->entries() as $entry) {
                if (!$entry->difference()->isZero()) {
                    throw new \LogicException(
                        sprintf('%s is out of balance by %s.', $entry->key, $entry->difference()),
                    );
                }
                $period->book($entry);
            }
            $this->entities->persist($period);
            $this->audit->note($by, 'books '.$month, sprintf('Closed, with %d entries', count($period->entries())));

            return $period;
        });
    }

    /**
     * @param iterable<BookEntry> $entries
     *
     * @return array<string, array{BigDecimal, BigDecimal}> debits and credits, by account
     */
    public static function totals(iterable $entries): array
    {
        $totals = [];
        foreach ($entries as $entry) {
            foreach ($entry->lines as $line) {
                $totals = self::plus($totals, $line);
            }
        }

        return $totals;
    }

    /**
     * @param array<string, array{BigDecimal, BigDecimal}> $totals
     *
     * @return array<string, array{BigDecimal, BigDecimal}>
     */
    private static function plus(array $totals, BookLine $line): array
    {
        [$debit, $credit] = $totals[$line->account->value] ?? [BigDecimal::zero(), BigDecimal::zero()];
        $totals[$line->account->value] = [$debit->plus($line->debit() ?? 0), $credit->plus($line->credit() ?? 0)];

        return $totals;
    }
}
