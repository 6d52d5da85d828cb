<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\Item\Item;

/**
 * Finds whom an order could go to, by parts of the name or code.
 *
 * @phpstan-type Choice array{code: string, name: string, currency: string, terms: string|null, draft: string|null,
 *      open: int, proposed: int, offer: int|null, pack: string|null}
 */
final readonly class SupplierChoices
{
    private const MOST = 12;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /**
     * @param Item|null $item only those who sell it, where one is given, the first choice first
     *
     * @return list<Choice> draft: the number of the last one to them; open: orders on their way; proposed: lines on
     *      Reorder; offer: the id of their offer of the item
     */
    public function find(string $words, ?Item $item): array
    {
        /** @var list<Choice> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT s.code, s.name, s.currency, s.delivery_terms terms,
                (SELECT MAX(d.number) FROM purchase_order d WHERE d.supplier_id = s.id AND d.state = 'draft') draft,
                (SELECT COUNT(DISTINCT order_id) FROM open_line WHERE supplier_id = s.id) open,
                (SELECT COUNT(*) FROM proposal p JOIN offer po ON po.id = p.offer_id
                    WHERE po.supplier_id = s.id AND p.listed = 1 AND p.draft_id IS NULL) proposed,
                o.id offer, o.pack_name pack
             FROM supplier s
             LEFT JOIN (offer o JOIN offer_in_force f ON f.id = o.id AND :day BETWEEN f.from_day AND f.until_day)
                ON o.supplier_id = s.id AND o.item_id = :item
             WHERE s.archived_on IS NULL AND (s.name LIKE :like OR s.code LIKE :like)
                AND (:item = 0 OR o.id IS NOT NULL)
             ORDER BY o.rank, s.code = :words DESC, s.name LIKE :starts DESC, s.name LIMIT ".self::MOST,
            [
                'item' => $item->id ?? 0,
                'day' => $this->clock->now()->format('Y-m-d'),
                'words' => $words,
                'like' => '%'.addcslashes($words, '%_\\').'%',
                'starts' => addcslashes($words, '%_\\').'%',
            ],
        );

        return $rows;
    }
}
