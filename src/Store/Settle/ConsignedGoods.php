<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Order\OrderLine;

/** What suppliers left with us and is theirs yet, and what became ours. */
final readonly class ConsignedGoods
{
    private const MOST = 200;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<OrderLine> with goods that are theirs yet, the oldest first */
    public function lines(): array
    {
        /** @var list<OrderLine> $lines */
        $lines = $this->entities
            ->createQuery(
                'SELECT l, o, s, i, f FROM '.OrderLine::class.' l JOIN l.order o JOIN o.supplier s JOIN l.item i
                 LEFT JOIN l.offer f WHERE l.stillTheirs > 0 ORDER BY l.id',
            )
            ->getResult();

        return $lines;
    }

    /**
     * @param list<OrderLine> $lines
     *
     * @return array<int, BigDecimal> stock units at all sites, by item
     */
    public function held(array $lines): array
    {
        /** @var array<int, string> $rows */
        $rows = $this->entities->getConnection()->fetchAllKeyValue(
            'SELECT item_id, SUM(quantity) FROM stock_balance WHERE item_id IN (?) GROUP BY item_id',
            [array_map(static fn (OrderLine $line): int => $line->item->id ?? 0, $lines)],
            [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }

    /**
     * @param list<OrderLine> $lines
     *
     * @return array<int, list<array{day: string, packs: string}>> what came of each and was not taken back, by line,
     *                                                             the latest first
     */
    public function came(array $lines): array
    {
        /** @var list<array{line_id: int, day: string, packs: string}> $rows */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT x.line_id, r.day, x.packs FROM standing_receipt_line x JOIN receipt r ON r.id = x.receipt_id
             WHERE x.line_id IN (?) ORDER BY r.day DESC, x.id DESC',
            [array_map(static fn (OrderLine $line): int => $line->id, $lines)],
            [ArrayParameterType::INTEGER],
        );
        $came = [];
        foreach ($rows as $row) {
            $came[$row['line_id']][] = ['day' => $row['day'], 'packs' => $row['packs']];
        }

        return $came;
    }

    /** @return list<ConsignedUse> the latest first */
    public function taken(): array
    {
        return $this->entities->getRepository(ConsignedUse::class)->findBy([], ['id' => 'DESC'], self::MOST);
    }

    /** What stands in stock and is theirs, at what it came at; home currency. */
    public function worth(): BigDecimal
    {
        $worth = $this->entities->getConnection()->fetchOne(
            'SELECT SUM(ROUND(l.still_theirs * l.pack_content * c.cost, 2)) FROM order_line l
             JOIN (SELECT line_id, SUM(packs * unit_cost) / SUM(packs) cost FROM standing_receipt_line
                GROUP BY line_id) c ON c.line_id = l.id WHERE l.still_theirs > 0',
        );

        return BigDecimal::of(is_string($worth) ? $worth : 0);
    }
}
