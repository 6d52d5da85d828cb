<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Settling\Layers;

/**
 * The stock valued first in, first out, worked out a second time: movement by movement, from the first, where
 * StockValue counts back from what is there.
 */
final readonly class LayersProof
{
    /** A cent for each place a lot lies at: each is rounded by itself. */
    private const ROUNDED = '0.01';

    public function __construct(private Connection $connection, private StockValue $value)
    {
    }

    /** @return list<string> every difference, in words */
    public function differences(\DateTimeImmutable $today): array
    {
        $stands = $places = [];
        foreach ($this->value->everything($today) as $row) {
            $lot = $row['code']."\0".$row['lot'];
            $stands[$lot] = BigDecimal::of($row['value'])->plus($stands[$lot] ?? 0);
            $places[$lot] = ($places[$lot] ?? 0) + 1;
        }
        $found = [];
        foreach ($this->proven() as $lot => $proven) {
            $difference = $proven->minus($stands[$lot] ?? 0)->abs();
            if ($difference->isGreaterThan(BigDecimal::of(self::ROUNDED)->multipliedBy($places[$lot] ?? 1))) {
                $found[] = sprintf(
                    'first in, first out against movements: %s stands at %s, proven %s',
                    str_replace("\0", ', lot ', rtrim($lot, "\0")),
                    $stands[$lot] ?? 'nothing',
                    $proven->toScale(2, RoundingMode::HalfUp),
                );
            }
        }

        return $found;
    }

    /** @return iterable<string, BigDecimal> worth of each lot there is any of, by code and lot */
    private function proven(): iterable
    {
        $charges = $this->charges();
        /**
         * @var iterable<array{item_id: int, code: string, average: string, lot: string, kind: string, quantity: string,
         *      unit_cost: string|null, reference: string, layer: string}> $movements
         */
        $movements = $this->connection->iterateAssociative(
            'SELECT m.item_id, i.code, COALESCE(i.average_cost, i.standard_cost, 0) average, m.lot, m.kind, m.quantity,
                m.unit_cost, m.reference, COALESCE(m.idempotency_key, m.id) layer
             FROM stock_movement m JOIN item i ON i.id = m.item_id ORDER BY m.item_id, m.day, m.id',
        );
        /** @var array<string, Layers> $layers */
        $layers = $there = [];
        $item = null;
        foreach ($movements as $row) {
            if (null !== $item && $item['item_id'] !== $row['item_id']) {
                yield from self::worth($item['code'], $item['average'], $layers, $there);
                $layers = $there = [];
            }
            $item = $row;
            $lot = $row['lot'];
            $layers[$lot] ??= new Layers();
            $units = BigDecimal::of($row['quantity']);
            $there[$lot] = $units->plus($there[$lot] ?? 0);
            if (MovementKind::ReceiptBack->value === $row['kind']) {
                $layers[$lot]->lessen(substr($row['layer'], strlen(AverageCosts::BACK)), $units->negated());
            } elseif (MovementKind::Unit->value === $row['kind']) {
                array_map(static fn (Layers $some) => $some->forget(), $layers);
            } elseif (null !== $row['unit_cost'] && $units->isPositive() && AverageCosts::bringsCost($row['kind'])) {
                $share = MovementKind::Receipt->value === $row['kind']
                    ? $charges[$row['reference']."\0".$row['item_id']."\0".$lot] ?? 0
                    : 0;
                $layers[$lot]->add(
                    $row['layer'],
                    $units,
                    BigDecimal::of($row['unit_cost'])->plus($share),
                );
            }
        }
        if (null !== $item) {
            yield from self::worth($item['code'], $item['average'], $layers, $there);
        }
    }

    /**
     * @param array<string, Layers>     $layers by lot
     * @param array<string, BigDecimal> $there  by lot
     *
     * @return iterable<string, BigDecimal>
     */
    private static function worth(string $code, string $average, array $layers, array $there): iterable
    {
        foreach ($there as $lot => $units) {
            if ($units->isPositive()) {
                yield $code."\0".$lot => $layers[$lot]->worth($units, BigDecimal::of($average));
            }
        }
    }

    /** @return array<string, BigDecimal> what charges that stand come to on one unit, by receipt, item and lot */
    private function charges(): array
    {
        /** @var list<array{receipt: string, item: int, lot: string, share: string, units: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT r.number receipt, o.item_id item, x.lot, c.share, x.packs * o.pack_content units
             FROM receipt_line x JOIN receipt r ON r.id = x.receipt_id JOIN order_line o ON o.id = x.line_id
             JOIN (SELECT l.came_id, SUM(l.share) share FROM landed_charge_line l
                JOIN landed_charge h ON h.id = l.charge_id WHERE h.taken_back IS NULL GROUP BY l.came_id) c
                ON c.came_id = x.id',
        );
        $sums = [];
        foreach ($rows as $row) {
            $key = $row['receipt']."\0".$row['item']."\0".$row['lot'];
            $sums[$key] = [
                BigDecimal::of($row['share'])->plus($sums[$key][0] ?? 0),
                BigDecimal::of($row['units'])->plus($sums[$key][1] ?? 0),
            ];
        }

        return array_map(
            static fn (array $sum): BigDecimal => $sum[1]->isZero()
                ? BigDecimal::zero()
                : $sum[0]->dividedBy($sum[1], 10, RoundingMode::HalfUp),
            $sums,
        );
    }
}
