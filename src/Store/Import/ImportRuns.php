<?php

declare(strict_types=1);

namespace TallBarrel\Store\Import;

use Doctrine\ORM\EntityManagerInterface;

/** The files that were brought, found. */
final readonly class ImportRuns
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** The id of the last run that was applied; 0 when there is none. */
    public function lastApplied(): int
    {
        $last = $this->entities
            ->createQuery('SELECT MAX(r.id) FROM '.ImportRun::class.' r WHERE r.state = :applied')
            ->setParameter('applied', ImportRun::APPLIED)
            ->getSingleScalarResult();

        return is_numeric($last) ? (int) $last : 0;
    }
}
