<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Store\OneTrip;

/** Figures about stock, each from one query. */
final readonly class StockFigures
{
    private const LOOK_AHEAD_DAYS = 60;

    public function __construct(private Connection $connection)
    {
    }

    /** Lots that expire within two months, asked along with other things: see lotsAtRiskIn(). */
    public static function askLotsAtRisk(OneTrip $trip, \DateTimeImmutable $today, ?int $site): void
    {
        $day = $today->format('Y-m-d');
        $trip->ask(
            'expiring',
            ['code', 'name', 'site', 'lot', 'expires', 'held', 'per_day', 'cost', 'unit', 'days'],
            'expires, code, site, lot',
            "SELECT i.code, i.name, s.name site, b.lot, l.expires_on expires, b.quantity held,
                p.forecast_per_week / 7 per_day, i.average_cost cost, i.unit, DATEDIFF(l.expires_on, ?) days
             FROM stock_balance b JOIN lot l ON l.item_id = b.item_id AND l.number = b.lot
             JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
             LEFT JOIN proposal p ON p.item_id = b.item_id AND p.site_id = b.site_id
             WHERE b.quantity > 0 AND b.lot <> '' AND l.expires_on <= DATE_ADD(?, INTERVAL ".
                self::LOOK_AHEAD_DAYS.
                ' DAY) AND (? IS NULL OR b.site_id = ?)',
            [$day, $day, $site, $site],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers to what askLotsAtRisk() asks
     *
     * @return list<array{code: string, name: string, site: string, lot: string, expires: string, held: float,
     *      left: float, value: float, unit: string, days: int}> with more left than will sell by then, dearest first
     */
    public static function lotsAtRiskIn(array $answers): array
    {
        $found = [];
        foreach ($answers['expiring'] as $row) {
            $days = (int) $row['days'];
            $left = (float) $row['held'] - max(0, $days) * (float) $row['per_day'];
            if ($left >= 1) {
                $found[] = [
                    'code' => (string) $row['code'],
                    'name' => (string) $row['name'],
                    'site' => (string) $row['site'],
                    'lot' => (string) $row['lot'],
                    'expires' => (string) $row['expires'],
                    'held' => (float) $row['held'],
                    'left' => $left,
                    'value' => $left * (float) $row['cost'],
                    'unit' => Unit::from((string) $row['unit'])->symbol(),
                    'days' => $days,
                ];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b['value'] <=> $a['value']);

        return $found;
    }

    /**
     * Stock at average cost: what moves, what is steady, what is slow (see StockView).
     *
     * @return array{moving: float, steady: float, slow: float}
     */
    public function value(?int $site): array
    {
        /** @var array{moving: string|null, steady: string|null, slow: string|null} $row */
        $row = $this->connection->fetchAssociative(
            sprintf(
                'SELECT SUM(IF(p.cover < %1$d, p.held * i.average_cost, 0)) moving,
                    SUM(IF(p.cover >= %1$d AND p.cover < %2$d, p.held * i.average_cost, 0)) steady,
                    SUM(IF(p.cover >= %2$d, p.held * i.average_cost, 0)) slow
                 FROM %3$s p JOIN item i ON i.id = p.item_id',
                StockView::FAST_DAYS,
                StockView::SLOW_DAYS,
                StockView::places(),
            ),
            ['site' => $site],
        );

        return ['moving' => (float) $row['moving'], 'steady' => (float) $row['steady'], 'slow' => (float) $row['slow']];
    }

    /** Stock at average cost above its order-up-to levels. */
    public function over(?int $site): float
    {
        $value = $this->connection->fetchOne(
            sprintf(
                'SELECT SUM(%s * i.average_cost) FROM %s p JOIN item i ON i.id = p.item_id',
                StockView::Over->units(),
                StockView::places(),
            ),
            ['site' => $site],
        );

        return is_numeric($value) ? (float) $value : 0.0;
    }
}
