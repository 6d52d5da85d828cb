<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\LineMatch;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Core\Settling\Tolerance;
use TallBarrel\Store\Supplier\AgreedTolerance;

/**
 * Invoices as lists show them, without an entity for each line; those nobody has settled yet are matched as LineMatch
 * says.
 *
 * @phpstan-type Line array{id: int, number: string, day: string, name: string, currency: string, packs: string,
 *      price: string, tax_percent: string, received: string, on_quantity: string|null, on_price: string|null,
 *      ordered: string, agreed: string, tolerance_percent: string|null, tolerance_amount: string|null}
 */
final readonly class InvoiceRows
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<InvoiceRow> oldest first */
    public function entered(int $most = 500): array
    {
        /** @var list<Line> $lines */
        $lines = $this->connection->fetchAllAssociative(
            'SELECT i.id, i.number, i.day, s.name, i.currency, l.packs, l.price, l.tax_percent, l.received,
                l.on_quantity, l.on_price, COALESCE(o.packs, l.packs) ordered,
                COALESCE(o.price, l.deposit_agreed, l.price) agreed, s.tolerance_percent, s.tolerance_amount
             FROM (SELECT id, number, day, currency, supplier_id FROM invoice
                WHERE state = ? ORDER BY day, id LIMIT ?) i
             JOIN supplier s ON s.id = i.supplier_id JOIN invoice_line l ON l.invoice_id = i.id
             LEFT JOIN order_line o ON o.id = l.order_line_id ORDER BY i.day, i.id, l.position',
            [InvoiceState::Entered->value, $most],
            [1 => ParameterType::INTEGER],
        );
        $invoices = [];
        foreach ($lines as $line) {
            $invoices[$line['id']][] = $line;
        }

        return array_map(self::row(...), array_values($invoices));
    }

    /** @return list<PaidRow> paid last first */
    public function paid(int $most): array
    {
        /**
         * @var list<array{id: int, number: string, supplier: string, paid_on: string, paid: string, currency: string}>
         *      $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.id, i.number, s.name supplier, i.paid_on, i.paid, i.currency
             FROM invoice i JOIN supplier s ON s.id = i.supplier_id
             WHERE i.state = ? ORDER BY i.paid_on DESC, i.id DESC LIMIT ?',
            [InvoiceState::Paid->value, $most],
            [1 => ParameterType::INTEGER],
        );

        return array_map(static fn (array $row): PaidRow => new PaidRow(
            $row['id'],
            $row['number'],
            $row['supplier'],
            new \DateTimeImmutable($row['paid_on']),
            Money::of($row['paid'], $row['currency']),
        ), $rows);
    }

    /** @param non-empty-list<Line> $lines */
    private static function row(array $lines): InvoiceRow
    {
        $first = $lines[0];
        [$percent, $amount] = [$first['tolerance_percent'], $first['tolerance_amount']];
        $tolerance = AgreedTolerance::of(
            null === $percent ? null : BigDecimal::of($percent),
            null === $amount ? null : BigDecimal::of($amount),
        )->tolerance();
        $asked = static fn (array $line): array => [
            Money::of(BigDecimal::of($line['packs'])->multipliedBy($line['price']), $first['currency'])->rounded(),
            Tax::percent($line['tax_percent']),
        ];

        return new InvoiceRow(
            $first['id'],
            $first['number'],
            new \DateTimeImmutable($first['day']),
            $first['name'],
            DocumentSums::of($first['currency'], array_map($asked, $lines))->total,
            count(array_filter($lines, static fn (array $line): bool => !self::match($line, $tolerance)->isDecided())),
        );
    }

    /** @param Line $line */
    private static function match(array $line, Tolerance $tolerance): LineMatch
    {
        return new LineMatch(
            BigDecimal::of($line['ordered']),
            BigDecimal::of($line['received']),
            BigDecimal::of($line['packs']),
            BigDecimal::of($line['agreed']),
            BigDecimal::of($line['price']),
            $tolerance,
            QuantityVerdict::tryFrom($line['on_quantity'] ?? ''),
            PriceVerdict::tryFrom($line['on_price'] ?? ''),
        );
    }
}
