<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** Which part of the stock a list shows, and what it is ordered by. */
enum StockView: string
{
    case All = 'all';
    /** Lasts longer than SLOW_DAYS at the rate it sells. */
    case Slow = 'slow';
    /** More than its order-up-to level. */
    case Over = 'over';
    /** What most money lies in. */
    case Dear = 'dear';

    public const FAST_DAYS = 60;
    public const SLOW_DAYS = 180;

    /** Stock units of a place that the list is about; for a query over places p. */
    public function units(): string
    {
        return match ($this) {
            self::All, self::Dear => 'p.held',
            self::Slow => 'IF(p.cover >= '.self::SLOW_DAYS.', p.held, 0)',
            self::Over => 'GREATEST(p.held - p.up_to, 0)',
        };
    }

    /** What is held at each place, how many days it lasts and its order-up-to level; takes :site, null for all. */
    public static function places(): string
    {
        return '(SELECT b.item_id, b.site_id, GREATEST(SUM(b.quantity), 0) held, COALESCE(MAX(q.order_up_to), 0) up_to,
                COALESCE(SUM(b.quantity) / NULLIF(MAX(q.forecast_per_week) / 7, 0), 9999) cover
            FROM stock_balance b LEFT JOIN proposal q ON q.item_id = b.item_id AND q.site_id = b.site_id
            WHERE :site IS NULL OR b.site_id = :site GROUP BY b.item_id, b.site_id)';
    }
}
