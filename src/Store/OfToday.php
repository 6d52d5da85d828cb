<?php

declare(strict_types=1);

namespace TallBarrel\Store;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;

/**
 * What most of what buys asks of a day: the rates in force, what was agreed beyond single offers, and when suppliers
 * take orders. Who asks for one of them is likely to ask for the others: all are read in one query, and each is given
 * out once, so that whoever asks for it again sees what changed.
 */
final class OfToday implements ResetInterface
{
    public const RATES = 'rates';
    public const TERMS = 'terms';
    public const ORDER_DAYS = 'order-days';

    /** The latest rate of each currency up to a day: that day, twice. */
    public const LATEST_RATES = '(SELECT latest.asked, r.currency, r.foreign_for_one rate, r.day, r.source
        FROM exchange_rate r JOIN (SELECT ? asked, currency, MAX(day) day FROM exchange_rate WHERE day <= ?
            GROUP BY currency) latest ON latest.currency = r.currency AND latest.day = r.day)';
    /** When suppliers and we are shut, of a supplier s. */
    public const SHUT = "(SELECT GROUP_CONCAT(CONCAT(IF(c.supplier_id IS NULL, 'we', 'they'), ' ', c.first_day, ' ',
        c.last_day) SEPARATOR ',') FROM closure c WHERE c.supplier_id = s.id OR c.supplier_id IS NULL)";

    /** @var array<string, list<array<string, string|null>>> read, and not given out yet */
    private array $waiting = [];
    private string $day = '';

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    /**
     * @param self::* $what
     *
     * @return list<array<string, string|null>> of the rates those of today and of yesterday; of the terms the one that
     *      began last first
     */
    public function read(string $what): array
    {
        $now = $this->clock->now();
        [$today, $yesterday] = [$now->format('Y-m-d'), $now->modify('-1 day')->format('Y-m-d')];
        if (!isset($this->waiting[$what]) || $this->day !== $today) {
            $this->day = $today;
            $this->waiting = (new OneTrip())
                ->ask(
                    self::RATES,
                    ['asked', 'currency', 'rate', 'day', 'source'],
                    'asked, currency',
                    self::LATEST_RATES.' UNION ALL '.self::LATEST_RATES,
                    [$today, $today, $yesterday, $yesterday],
                )
                ->ask(
                    self::TERMS,
                    ['id', 'name', 'supplier_id', 'supplier_group', 'item_id', 'item_group', 'kind', 'basis',
                        'currency', 'steps'],
                    'first_day DESC, id DESC',
                    'SELECT * FROM price_term WHERE first_day <= ? AND (last_day IS NULL OR last_day >= ?)',
                    [$today, $today],
                )
                ->ask(
                    self::ORDER_DAYS,
                    ['id', 'order_weekdays', 'cut_off', 'shut'],
                    'id',
                    'SELECT s.id, s.order_weekdays, s.cut_off, '.self::SHUT.' shut FROM supplier s',
                )
                ->answers($this->connection);
        }
        $rows = $this->waiting[$what];
        unset($this->waiting[$what]);

        return $rows;
    }

    public function reset(): void
    {
        $this->waiting = [];
    }
}
