<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\Order\PurchaseOrder;

/** Deposits that suppliers asked for before goods came, and what of them is not taken off their invoices yet. */
final readonly class Deposits
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param list<PurchaseOrder> $orders
     *
     * @return array<int, BigDecimal> asked for with them, before tax, in the currency of the order; by order
     */
    public function asked(array $orders): array
    {
        return $this->sums($orders, 'AND price > 0');
    }

    /**
     * @param list<PurchaseOrder> $orders
     *
     * @return array<int, BigDecimal> asked for and not taken off, above zero; by order
     */
    public function open(array $orders): array
    {
        return array_filter(
            $this->sums($orders, ''),
            static fn (BigDecimal $open): bool => $open->isPositive(),
        );
    }

    /** Asked for and not taken off, before tax. */
    public function balance(PurchaseOrder $order): BigDecimal
    {
        return $this->sums([$order], '')[$order->id] ?? BigDecimal::zero();
    }

    /**
     * @param list<PurchaseOrder> $orders
     *
     * @return array<int, BigDecimal>
     */
    private function sums(array $orders, string $which): array
    {
        /** @var array<int, string> $rows */
        $rows = [] === $orders ? [] : $this->entities->getConnection()->fetchAllKeyValue(
            "SELECT deposit_id, SUM(ROUND(owed_packs * owed_price, 2)) FROM invoice_line
             WHERE deposit_id IN (?) $which GROUP BY deposit_id",
            [array_map(static fn (PurchaseOrder $order): int => $order->id, $orders)],
            [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }

    /** @return list<PurchaseOrder> sent, with a deposit in the terms that nobody asked for yet; the oldest first */
    public function due(int $most = \PHP_INT_MAX): array
    {
        $query = $this->entities
            ->createQuery(
                'SELECT o, s FROM '.PurchaseOrder::class.' o JOIN o.supplier s
                 WHERE s.terms.depositPercent > 0 AND o.state IN (:open) AND NOT EXISTS
                    (SELECT l.id FROM '.InvoiceLine::class.' l WHERE l.deposit = o) ORDER BY o.id',
            )
            ->setParameter('open', OrderState::openValues())
            ->setMaxResults($most);
        /** @var list<PurchaseOrder> $orders */
        $orders = InBatches::read($query, PurchaseOrder::class, 'lines')->getResult();

        return $orders;
    }

    /** @return array<string, true> codes of suppliers who have some of ours */
    public function holders(): array
    {
        /** @var list<string> $codes */
        $codes = $this->entities->getConnection()->fetchFirstColumn(
            'SELECT s.code FROM invoice_line l JOIN purchase_order o ON o.id = l.deposit_id
             JOIN supplier s ON s.id = o.supplier_id
             GROUP BY s.code HAVING SUM(ROUND(l.owed_packs * l.owed_price, 2)) > 0',
        );

        return array_fill_keys($codes, true);
    }
}
