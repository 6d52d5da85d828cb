<?php

declare(strict_types=1);

namespace TallBarrel\Store;

use Doctrine\ORM\Mapping\ClassMetadata;
use Doctrine\ORM\Query;

/**
 * What belongs to the entities of a query, read by one further query each instead of with every row: a wide supplier
 * beside each of its forty offers is read forty times otherwise, and lines cannot be joined where rows are limited.
 * Of an entity that was read before, what belongs to it is read when it is asked for.
 */
final class InBatches
{
    /**
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
}
