<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\EntityManagerInterface;

/**
 * What is kept with deliveries; a list of them reads none of their bytes.
 *
 * @phpstan-type AttachmentRow array{id: int, name: string, mime: string, by: string, at: string, bytes: int,
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
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT a.id, a.name, a.mime, p.name `by`, a.at, LENGTH(a.content) bytes, a.line_id line,
                o.description shows
             FROM delivery_attachment a JOIN person p ON p.id = a.by_id
             LEFT JOIN delivery_line l ON l.id = a.line_id LEFT JOIN order_line o ON o.id = l.line_id
             WHERE a.delivery_id = ? ORDER BY a.id',
            [$delivery->id],
        );

        return $rows;
    }
}
