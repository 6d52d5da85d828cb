<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsDoctrineListener;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Event\OnFlushEventArgs;
use Doctrine\ORM\Events;

/**
 * Puts beside what is noted what was before and is now: the fields that are changed in the same moment. Whoever notes
 * an act need not list them, and cannot forget one.
 */
#[AsDoctrineListener(Events::onFlush)]
final readonly class WhatChanged
{
    private const MOST = 60;
    private const LONGEST = 80;
    /** What nobody may read, and what nobody wants to. */
    private const HIDDEN = ['password', 'codeSecret', 'token', 'hash', 'content'];
    private const DULL = ['version', 'lastCodeStep'];

    public function onFlush(OnFlushEventArgs $event): void
    {
        $entities = $event->getObjectManager();
        $unit = $entities->getUnitOfWork();
        $noted = array_filter(
            $unit->getScheduledEntityInsertions(),
            static fn (object $one): bool => $one instanceof AuditEntry,
        );
        $entry = end($noted);
        if (!$entry instanceof AuditEntry) {
            return;
        }
        $changes = [];
        foreach ($unit->getScheduledEntityUpdates() as $entity) {
            $of = self::name($entities, $entity);
            foreach ($unit->getEntityChangeSet($entity) as $field => $change) {
                if (!in_array($field, self::DULL, true) && is_array($change)) {
                    [$was, $is] = $change;
                    $changes[] = self::change($entities, $of, $field, $was, $is);
                }
            }
        }
        foreach ($unit->getScheduledEntityDeletions() as $entity) {
            $changes[] = ['of' => self::name($entities, $entity), 'field' => '', 'was' => 'there', 'is' => 'removed'];
        }
        $entry->changed(array_slice(
            array_values(array_filter($changes, static fn (array $one): bool => $one['was'] !== $one['is'])),
            0,
            self::MOST,
        ));
        $this->recompute($entities, $entry);
    }

    private function recompute(EntityManagerInterface $entities, AuditEntry $entry): void
    {
        $entities->getUnitOfWork()->recomputeSingleEntityChangeSet(
            $entities->getClassMetadata(AuditEntry::class),
            $entry,
        );
    }

    /** @return array{of: string, field: string, was: string, is: string} */
    private static function change(
        EntityManagerInterface $entities,
        string $of,
        string $field,
        mixed $was,
        mixed $is,
    ): array {
        // Of a part of it, such as terms.netDays.
        $last = (string) preg_replace('/^.*\./', '', $field);
        [$was, $is] = in_array($last, self::HIDDEN, true)
            ? ['', '(changed)']
            : [self::words($entities, $was), self::words($entities, $is)];

        return ['of' => $of, 'field' => $field, 'was' => $was, 'is' => $is];
    }

    private static function words(EntityManagerInterface $entities, mixed $value): string
    {
        $words = match (true) {
            null === $value => '',
            is_bool($value) => $value ? 'yes' : 'no',
            $value instanceof \BackedEnum => (string) $value->value,
            $value instanceof \DateTimeInterface => str_replace(' 00:00:00', '', $value->format('Y-m-d H:i:s')),
            is_scalar($value), $value instanceof \Stringable => (string) $value,
            is_object($value) => self::name($entities, $value),
            default => (string) json_encode($value, \JSON_UNESCAPED_UNICODE | \JSON_INVALID_UTF8_SUBSTITUTE),
        };

        return mb_substr($words, 0, self::LONGEST);
    }

    /** As people call it, where it has a number, a code or a name. */
    private static function name(EntityManagerInterface $entities, object $entity): string
    {
        $class = (string) preg_replace('/^.*\\\\/', '', $entity::class);
        $kind = strtolower((string) preg_replace('/(?<!^)([A-Z])/', ' $1', $class));
        if (!$entities->getMetadataFactory()->hasMetadataFor($entity::class)) {
            return $kind;
        }
        $known = $entities->getClassMetadata($entity::class);
        foreach (['number', 'code', 'name', 'id'] as $by) {
            $value = $known->hasField($by) ? $known->getFieldValue($entity, $by) : null;
            if (is_scalar($value) && '' !== (string) $value) {
                return mb_substr($kind.' '.$value, 0, self::LONGEST);
            }
        }

        return $kind;
    }
}
