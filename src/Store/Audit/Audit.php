<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\Person\Person;

/** Who did what: written with the change itself, in its transaction. */
final readonly class Audit
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    public function note(?Person $person, string $subject, string $words): void
    {
        $this->entities->persist(new AuditEntry($this->clock->now(), $person, $subject, mb_substr($words, 0, 300)));
    }

    /** Where nothing else is saved along with it. */
    public function keep(): void
    {
        $this->entities->flush();
    }

    /** @return list<AuditEntry> latest first */
    public function of(string $subject, int $most = 50): array
    {
        /** @var list<AuditEntry> $entries */
        $entries = $this->entities
            ->createQuery('SELECT e, p FROM '.AuditEntry::class.' e LEFT JOIN e.person p WHERE e.subject = :subject
                ORDER BY e.id DESC')
            ->setParameter('subject', $subject)
            ->setMaxResults($most)
            ->getResult();

        return $entries;
    }
}
