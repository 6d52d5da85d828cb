<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;

/** What went back, or is to go. */
final readonly class SupplierReturns
{
    private const MOST = 300;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byNumber(string $number): ?SupplierReturn
    {
        return $this->entities->getRepository(SupplierReturn::class)->findOneBy(['number' => $number]);
    }

    public function byKey(string $key): ?SupplierReturn
    {
        return $this->entities->getRepository(SupplierReturn::class)->findOneBy(['idempotencyKey' => $key]);
    }

    /** @return list<SupplierReturn> open ones, the oldest first; then what is over, the latest first */
    public function all(): array
    {
        /** @var list<SupplierReturn> $returns */
        $returns = $this->entities
            ->createQuery(
                'SELECT b, r, d, s, t FROM '.SupplierReturn::class.' b JOIN b.receipt r JOIN r.delivery d
                 JOIN d.supplier s JOIN d.site t ORDER BY b.id DESC',
            )
            ->setMaxResults(self::MOST)
            ->getResult();
        usort($returns, static fn (SupplierReturn $a, SupplierReturn $b): int => [
            $a->state()->isOver(), $a->state()->isOver() ? -$a->id : $a->id,
        ] <=> [$b->state()->isOver(), $b->state()->isOver() ? -$b->id : $b->id]);

        return $returns;
    }

    /** @return list<SupplierReturn> of one receipt */
    public function of(Receipt $receipt): array
    {
        return array_values(
            $this->entities->getRepository(SupplierReturn::class)->findBy(['receipt' => $receipt], ['id' => 'ASC']),
        );
    }

    /** @return array<int, BigDecimal> packs that went back or are to go, by line of the receipt */
    public function packsOf(Receipt $receipt): array
    {
        /** @var array<int, string> $rows */
        $rows = $this->entities->getConnection()->fetchAllKeyValue(
            "SELECT l.came_id, SUM(l.packs) FROM supplier_return_line l JOIN supplier_return b ON b.id = l.back_id
             WHERE b.receipt_id = ? AND b.state <> 'dropped' GROUP BY l.came_id",
            [$receipt->id],
        );

        return array_map(BigDecimal::of(...), $rows);
    }
}
