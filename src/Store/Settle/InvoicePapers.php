<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Supplier\Supplier;

/** The files that invoices came as; a list of them reads none of their bytes. */
final readonly class InvoicePapers
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection)
    {
    }

    public function find(int $id): ?InvoicePaper
    {
        return $this->entities->find(InvoicePaper::class, $id);
    }

    /** One that came from that supplier and of which nothing was made yet; null where it is none of these. */
    public function waiting(Supplier $supplier, int $id): ?InvoicePaper
    {
        $paper = 0 === $id ? null : $this->find($id);
        $waits = $paper?->supplier === $supplier && $paper->isRead();

        return $waits && null === $paper->invoice() && null === $paper->credit() ? $paper : null;
    }

    /** @return list<InvoicePaper> what was within it */
    public function within(InvoicePaper $paper): array
    {
        return $this->entities->getRepository(InvoicePaper::class)->findBy(['within' => $paper], ['id' => 'ASC']);
    }

    /** @return list<array{id: int, name: string, mime: string, by: string, at: \DateTimeImmutable}> */
    public function of(Invoice $invoice): array
    {
        /** @var list<array{id: int, name: string, mime: string, by: string, at: \DateTimeImmutable}> $rows */
        $rows = $this->entities
            ->createQuery('SELECT a.id, a.name, a.mime, p.name AS by, a.at FROM '.InvoicePaper::class.' a
                JOIN a.by p WHERE a.invoice = :invoice ORDER BY a.id')
            ->setParameter('invoice', $invoice)
            ->getResult();

        return $rows;
    }

    /** Those that nobody made an invoice of within a day are thrown away. */
    public function sweep(\DateTimeImmutable $now): void
    {
        $this->connection->executeStatement(
            'DELETE FROM invoice_paper WHERE invoice_id IS NULL AND credit_id IS NULL AND within_id IS NULL AND at < ?',
            [$now->modify('-1 day')->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s')],
        );
    }
}
