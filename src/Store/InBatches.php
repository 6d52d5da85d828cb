<?php

declare(strict_types=1);

namespace TallBarrel\Store;

use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Mapping\ClassMetadata;
use Doctrine\ORM\Query;

/**
 * What belongs to the entities of a query, read by one further query each instead of with every row: a wide supplier
 * beside each of its forty offers is read forty times otherwise, and lines cannot be joined where rows are limited.
 */
final class InBatches
{
    /**
     * The many that belong to each, read after them. Of an entity that was read before, they are read when they are
     * asked for.
     *
     * @param class-string $class
     * @param string       ...$associations names of its properties
     */
    public static function read(Query $query, string $class, string ...$associations): Query
    {
        foreach ($associations as $association) {
            $query->setFetchMode($class, $association, ClassMetadata::FETCH_EAGER);
        }

        return $query;
    }

    /**
     * The one each belongs to, read before them: what is not there yet is stood in for and filled in later, value by
     * value, which takes half as long again.
     *
     * @param class-string         $class
     * @param array<string, mixed> $parameters
     * @param string               $where       which of them, as "e"
     * @param string               ...$associations names of its properties
     */
    public static function ahead(
        EntityManagerInterface $entities,
        string $class,
        string $where,
        array $parameters,
        string ...$associations,
    ): void {
        foreach ($associations as $association) {
            $query = $entities->createQuery(sprintf(
                'SELECT one FROM %s one WHERE one.id IN (SELECT IDENTITY(e.%s) FROM %s e WHERE %s)',
                $entities->getClassMetadata($class)->getAssociationTargetClass($association),
                $association,
                $class,
                $where,
            ));
            foreach ($parameters as $name => $value) {
                $query->setParameter($name, $value);
            }
            $query->getResult();
        }
    }
}
