<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsDoctrineListener;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Event\OnFlushEventArgs;
use Doctrine\ORM\Events;
use Doctrine\ORM\UnitOfWork;

/**
 * Whatever is saved and planning rests on leaves a note in the same transaction, so that no caller has to remember.
 * What is written past the entities, in sets, calls WhatMoved itself.
 */
#[AsDoctrineListener(Events::onFlush)]
final readonly class NoteWhatMoved
{
    public function onFlush(OnFlushEventArgs $event): void
    {
        $entities = $event->getObjectManager();
        $unit = $entities->getUnitOfWork();
        $items = $suppliers = [];
        $everything = false;
        foreach (self::changed($unit) as $changed) {
            if (!$changed instanceof PlanningRestsOnIt) {
                continue;
            }
            $moves = $changed->moves();
            $everything = $everything || $moves->everything;
            foreach ($moves->items as $item) {
                $items[spl_object_id($item)] = new MovedItem($item);
            }
            if (null !== $moves->supplier) {
                $suppliers[spl_object_id($moves->supplier)] = new MovedItem(null, $moves->supplier);
            }
        }
        self::write(
            $entities,
            $unit,
            $everything ? [new MovedItem(null)] : [...array_values($items), ...array_values($suppliers)],
        );
    }

    /** @return iterable<object> */
    private static function changed(UnitOfWork $unit): iterable
    {
        yield from $unit->getScheduledEntityInsertions();
        yield from $unit->getScheduledEntityUpdates();
        yield from $unit->getScheduledEntityDeletions();
    }

    /** @param list<MovedItem> $notes */
    private static function write(EntityManagerInterface $entities, UnitOfWork $unit, array $notes): void
    {
        $meta = $entities->getClassMetadata(MovedItem::class);
        foreach ($notes as $note) {
            $entities->persist($note);
            $unit->computeChangeSet($meta, $note);
        }
    }
}
