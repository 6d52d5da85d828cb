<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Quantity\Gtin;

/** To which item a GTIN belongs, as its own or as that of one of its packs. */
final readonly class Gtins
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * Packs that have a GTIN of their own.
     *
     * @param list<string> $digits 14 of them each
     *
     * @return array<string, array{item: int, units: BigDecimal}> by GTIN; units are stock units in the pack
     */
    public function packs(array $digits): array
    {
        if ([] === $digits) {
            return [];
        }
        /** @var list<array{gtin: string, item_id: int, quantity: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT gtin, item_id, quantity FROM item_pack WHERE gtin IN (?)',
            [$digits],
            [ArrayParameterType::STRING],
        );
        $packs = [];
        foreach ($rows as $row) {
            $packs[$row['gtin']] = ['item' => $row['item_id'], 'units' => BigDecimal::of($row['quantity'])];
        }

        return $packs;
    }

    /** Code of the item that has it; null where nobody has. */
    public function owner(Gtin $gtin): ?string
    {
        $code = $this->connection->fetchOne(
            'SELECT code FROM item WHERE gtin = :gtin UNION ALL
             SELECT i.code FROM item_pack p JOIN item i ON i.id = p.item_id WHERE p.gtin = :gtin LIMIT 1',
            ['gtin' => $gtin->digits],
        );

        return is_string($code) ? $code : null;
    }
}
