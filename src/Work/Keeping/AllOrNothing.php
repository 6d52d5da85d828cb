<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;

/** A piece of work in one transaction, saved whole or not at all. */
final readonly class AllOrNothing
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * What was half done is forgotten, so that whatever comes next begins with what is kept.
     *
     * @template T
     *
     * @param callable(): T $work
     *
     * @return T
     */
    public function take(callable $work): mixed
    {
        $connection = $this->entities->getConnection();
        $connection->beginTransaction();
        try {
            $done = $work();
            $this->entities->flush();
            $connection->commit();
        } catch (\Throwable $error) {
            $connection->rollBack();
            $this->entities->clear();
            throw $error;
        }

        return $done;
    }
}
