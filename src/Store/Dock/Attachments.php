<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\EntityManagerInterface;

/**
 * What is kept with deliveries; a list of them reads none of their bytes.
 *
 * @phpstan-type AttachmentRow array{id: int, name: string, mime: string, by: string, at: \DateTimeImmutable,
 *      line: int|null, shows: string|null}
 */
final readonly class Attachments
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function find(int $id): ?Attachment
    {
        return $this->entities->find(Attachment::class, $id);
    }

    /** @return list<AttachmentRow> in the order they were brought */
    public function of(Delivery $delivery): array
    {
        /** @var list<AttachmentRow> $rows */
        $rows = $this->entities
            ->createQuery('SELECT a.id, a.name, a.mime, p.name AS by, a.at, l.id AS line, o.description AS shows
                FROM '.Attachment::class.' a JOIN a.by p LEFT JOIN a.line l LEFT JOIN l.line o
                WHERE a.delivery = :delivery ORDER BY a.id')
            ->setParameter('delivery', $delivery)
            ->getResult();

        return $rows;
    }
}
