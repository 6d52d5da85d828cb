<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Settling\StillHeld;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Item\Item;

/** What is still in stock of a cost that was put on an item by a movement of its ledger. */
final readonly class CostLeft
{
    /** Between our own sites and states nothing comes and nothing goes. */
    private const NEITHER = [MovementKind::Transfer->value, MovementKind::Inspected->value];

    public function __construct(private Connection $connection)
    {
    }

    /** Of what a line of a receipt cost; nothing where the ledger does not know it. */
    public function ofReceipt(ReceiptLine $line, Item $item): StillHeld
    {
        return $this->since($item, $this->movement(
            $item,
            MovementKind::Receipt,
            $line->receipt->number,
            $line->lot,
            (string) $line->line->pack()->toStockUnits($line->packs),
        ));
    }

    /** Of what a charge put on an item. */
    public function ofCharge(string $charge, Item $item, string $lot): StillHeld
    {
        return $this->since($item, $this->movement($item, MovementKind::Charge, $charge, $lot, '0'));
    }

    private function movement(Item $item, MovementKind $kind, string $reference, string $lot, string $units): ?int
    {
        $id = $this->connection->fetchOne(
            'SELECT id FROM stock_movement WHERE item_id = ? AND kind = ? AND reference = ? AND lot = ?
             ORDER BY quantity <> ?, id LIMIT 1',
            [$item->id, $kind->value, $reference, $lot, $units],
        );

        return is_int($id) ? $id : null;
    }

    private function since(Item $item, ?int $movement): StillHeld
    {
        if (null === $movement) {
            return StillHeld::of(BigDecimal::zero());
        }
        $held = $this->connection->fetchOne(
            'SELECT SUM(quantity) FROM stock_movement WHERE item_id = ? AND id <= ?',
            [$item->id, $movement],
        );
        $left = StillHeld::of(BigDecimal::of(is_string($held) ? $held : 0));
        /** @var iterable<array{kind: string, quantity: string}> $rows */
        $rows = $this->connection->iterateAssociative(
            'SELECT kind, quantity FROM stock_movement WHERE item_id = ? AND id > ? AND quantity <> 0 ORDER BY id',
            [$item->id, $movement],
        );
        foreach ($rows as $row) {
            $units = BigDecimal::of($row['quantity']);
            $left = match (true) {
                in_array($row['kind'], self::NEITHER, true) => $left,
                MovementKind::Unit->value === $row['kind'] => $left->isCountedIn($units),
                default => $left->moves($units),
            };
        }

        return $left;
    }
}
