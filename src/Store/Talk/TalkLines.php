<?php

declare(strict_types=1);

namespace TallBarrel\Store\Talk;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Person\Person;

final readonly class TalkLines
{
    /** So many of a subject are shown. */
    private const MOST = 100;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<TalkLine> what this person has not answered, and answers to them that they have not settled */
    public function waitingFor(Person $person): array
    {
        /** @var list<TalkLine> $remarks */
        $remarks = $this->entities
            ->createQuery(
                sprintf(
                    "SELECT r, b, t FROM %s r JOIN r.by b JOIN r.to t
                     WHERE (r.state = 'open' AND r.to = :person) OR (r.state = 'answered' AND r.by = :person)
                     ORDER BY r.id",
                    TalkLine::class,
                ),
            )
            ->setParameter('person', $person)
            ->setMaxResults(self::MOST)
            ->getResult();

        return $remarks;
    }

    /** @return list<TalkLine> the first first */
    public function about(string $subject): array
    {
        /** @var list<TalkLine> $remarks */
        $remarks = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT r, b, t FROM %s r JOIN r.by b LEFT JOIN r.to t WHERE r.subject = :subject
                     ORDER BY r.id DESC',
                    TalkLine::class,
                ),
            )
            ->setParameter('subject', $subject)
            ->setMaxResults(self::MOST)
            ->getResult();

        return array_reverse($remarks);
    }
}
