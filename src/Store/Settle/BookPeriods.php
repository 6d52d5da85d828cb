<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Settling\Books\LedgerAccount;

/** The months that went to the bookkeeping. */
final readonly class BookPeriods
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function of(string $month): ?BookPeriod
    {
        return $this->entities->getRepository(BookPeriod::class)->findOneBy(['month' => $month]);
    }

    /** @return list<BookPeriod> the latest first */
    public function all(): array
    {
        return $this->entities->getRepository(BookPeriod::class)->findBy([], ['month' => 'DESC']);
    }

    public function last(): ?BookPeriod
    {
        return $this->entities->getRepository(BookPeriod::class)->findOneBy([], ['month' => 'DESC']);
    }

    public function isClosed(\DateTimeImmutable $day): bool
    {
        return $day->format('Y-m') <= ($this->last()->month ?? '');
    }

    /** @return array<string, true> keys of all that was ever booked */
    public function keys(): array
    {
        /** @var list<string> $keys */
        $keys = $this->entities->getConnection()->fetchFirstColumn('SELECT booked_key FROM booked_entry');

        return array_fill_keys($keys, true);
    }

    public function has(string $key): bool
    {
        return false !== $this->entities->getConnection()
            ->fetchOne('SELECT 1 FROM booked_entry WHERE booked_key = ?', [$key]);
    }

    /** What the stock account stands at by all that was booked. */
    public function stock(): BigDecimal
    {
        $sum = $this->entities->getConnection()->fetchOne(
            'SELECT SUM(amount) FROM booked_line WHERE account = ?',
            [LedgerAccount::Stock->value],
        );

        return BigDecimal::of(is_string($sum) ? $sum : 0);
    }
}
