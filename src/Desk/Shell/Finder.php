<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Connection;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Finds items, suppliers and orders by code, number, name or GTIN. */
final readonly class Finder
{
    private const MOST = 12;

    public function __construct(private Connection $connection, private UrlGeneratorInterface $urls)
    {
    }

    /** @return list<array{kind: string, code: string, name: string, url: string}> */
    public function find(string $words): array
    {
        if ('' === $words) {
            return [];
        }
        $like = '%'.addcslashes($words, '%_\\').'%';
        /** @var list<array{kind: string, code: string, name: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT * FROM (
                SELECT 'order' kind, o.number code, CONCAT(s.name, ', ', REPLACE(o.state, '-', ' ')) name
                FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
                WHERE o.number LIKE :like OR o.their_reference LIKE :like
                    OR o.id IN (SELECT order_id FROM despatch WHERE tracking LIKE :like)
                UNION ALL SELECT 'supplier', code, name FROM supplier WHERE code LIKE :like OR name LIKE :like
                UNION ALL SELECT 'item', code, name FROM item
                WHERE code LIKE :like OR name LIKE :like OR gtin LIKE :like
             ) found ORDER BY code = :words DESC, code LIKE :starts DESC, name LIMIT ".self::MOST,
            ['like' => $like, 'words' => $words, 'starts' => addcslashes($words, '%_\\').'%'],
        );

        return array_map(
            fn (array $row): array => $row + [
                'url' => match ($row['kind']) {
                    'order' => $this->urls->generate('order', ['number' => $row['code']]),
                    'supplier' => $this->urls->generate('supplier', ['code' => $row['code']]),
                    default => $this->urls->generate('item', ['code' => $row['code']]),
                },
            ],
            $rows,
        );
    }
}
