<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\OneTrip;
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

    /** What is kept with an invoice, asked along with other things: see in(). */
    public static function askOf(OneTrip $trip, Invoice $invoice): void
    {
        $trip->ask(
            'papers',
            ['id', 'name', 'mime', 'by_name', 'at'],
            'id',
            'SELECT a.id, a.name, a.mime, p.name by_name, a.at FROM invoice_paper a JOIN person p ON p.id = a.by_id
             WHERE a.invoice_id = ?',
            [$invoice->id],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<array{id: int, name: string, mime: string, by: string, at: \DateTimeImmutable}>
     */
    public static function in(array $answers): array
    {
        return array_map(
            static fn (array $row): array => [
                'id' => (int) $row['id'],
                'name' => (string) $row['name'],
                'mime' => (string) $row['mime'],
                'by' => (string) $row['by_name'],
                'at' => new \DateTimeImmutable((string) $row['at']),
            ],
            $answers['papers'],
        );
    }

    public function count(Invoice $invoice): int
    {
        return $this->entities->getRepository(InvoicePaper::class)->count(['invoice' => $invoice]);
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
