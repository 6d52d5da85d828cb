<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\ParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;

/**
 * Deposits that suppliers asked for before goods came, and what of them is not taken off their invoices yet.
 *
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 */
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

    /** @return list<DepositRow> of orders sent, where the terms have one and nobody asked for it; the oldest first */
    public function due(int $most = \PHP_INT_MAX): array
    {
        /**
         * @var list<array{number: string, code: string, name: string, sent_at: string, currency: string,
         *      adjustments: string, percent: string, goods: string}> $rows
         */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT o.number, s.code, s.name, o.sent_at, o.currency, o.adjustments, s.deposit_percent percent,
                GROUP_CONCAT(l.packs * l.price) goods
             FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN order_line l ON l.order_id = o.id
             WHERE s.deposit_percent > 0 AND s.net_days IS NOT NULL AND o.state IN ('.Orders::openStates().')
                AND NOT EXISTS (SELECT 1 FROM invoice_line i WHERE i.deposit_id = o.id)
             GROUP BY o.id ORDER BY o.id LIMIT ?',
            [$most],
            [ParameterType::INTEGER],
        );

        return array_map(static function (array $row): DepositRow {
            /** @var list<AllowanceChargeData> $adjustments */
            $adjustments = json_decode($row['adjustments'], true, flags: \JSON_THROW_ON_ERROR);
            $currency = $row['currency'];
            $net = DocumentSums::of(
                $currency,
                array_map(
                    static fn (string $line): array => [Money::of($line, $currency), Tax::percent(0)],
                    explode(',', $row['goods']),
                ),
                array_map(AllowanceCharge::fromArray(...), $adjustments),
            )->net;

            return new DepositRow(
                $row['number'],
                $row['code'],
                $row['name'],
                new \DateTimeImmutable($row['sent_at']),
                PaymentTerms::depositOf($net, BigDecimal::of($row['percent'])),
            );
        }, $rows);
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
