<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Import\ImportRun;

/** Files that were brought and that nobody said yes to: after a day they go, and whoever looks is told so. */
final readonly class OldUploads
{
    private const AFTER = '-1 day';

    public function __construct(private EntityManagerInterface $entities, private string $instanceDir)
    {
    }

    public function sweep(\DateTimeImmutable $now): void
    {
        $since = $now->modify(self::AFTER);
        /** @var list<ImportRun> $runs */
        $runs = $this->entities
            ->createQuery('SELECT r FROM '.ImportRun::class.' r WHERE r.state IN (:states) AND r.at < :since')
            ->setParameter('states', [ImportRun::CHECKING, ImportRun::CHECKED])
            ->setParameter('since', $since)
            ->getResult();
        foreach ($runs as $run) {
            $run->failed('Nobody said yes within a day, and the file was taken away. Bring it again.');
        }
        $this->entities->flush();
        foreach (glob($this->instanceDir.'/uploads/*') ?: [] as $file) {
            if (is_file($file) && filemtime($file) < $since->getTimestamp()) {
                @unlink($file);
            }
        }
    }
}
