<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\Events;

/**
 * Keeps with each order line how many packs are owed for on invoices, so that what came without one is found at once
 * among all that ever came; stock:verify proves it.
 */
#[AsEntityListener(Events::postPersist, entity: InvoiceLine::class, method: 'changed')]
#[AsEntityListener(Events::postUpdate, entity: InvoiceLine::class, method: 'changed')]
#[AsEntityListener(Events::postRemove, entity: InvoiceLine::class, method: 'changed')]
final readonly class InvoicedPacks
{
    public function __construct(private Connection $connection)
    {
    }

    public function changed(InvoiceLine $line): void
    {
        if (null !== $line->orderLine) {
            $this->connection->executeStatement(
                'UPDATE order_line SET invoiced =
                    (SELECT COALESCE(SUM(owed_packs), 0) FROM invoice_line WHERE order_line_id = :line)
                 WHERE id = :line',
                ['line' => $line->orderLine->id],
            );
        }
    }
}
