<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\VisitLength;

/** Where people are signed in. */
final readonly class Visits
{
    /** How long a visit may stand still before it is noted that it goes on. */
    private const SECONDS = 300;

    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    public function begin(Person $person, string $device, string $address): Visit
    {
        $visit = new Visit($person, $this->clock->now(), mb_substr(mb_scrub($device), 0, 200), $address);
        $this->entities->persist($visit);
        $this->entities->flush();

        return $visit;
    }

    /**
     * Somebody who may still be here, read with the visit that they are here by; null if they were blocked or the visit
     * was ended or is over.
     *
     * @param int|null $visit null where none is known
     */
    public function person(int $id, ?int $visit, VisitLength $length): ?Person
    {
        /** @var list<Person|Visit|null> $found */
        $found = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT p, v FROM %s p LEFT JOIN %s v WITH v.person = p AND v.id = :visit WHERE p.id = :id',
                    Person::class,
                    Visit::class,
                ),
            )
            ->setParameters(new \Doctrine\Common\Collections\ArrayCollection([
                new \Doctrine\ORM\Query\Parameter('visit', $visit ?? 0),
                new \Doctrine\ORM\Query\Parameter('id', $id),
            ]))
            ->getResult();
        [$person, $here] = [$found[0] ?? null, $found[1] ?? null];
        if (!$person instanceof Person || $person->isBlocked()) {
            return null;
        }
        if (null === $visit) {
            return $person;
        }
        $now = $this->clock->now();
        if (!$here instanceof Visit || $here->isOver()) {
            return null;
        }
        if ($length->isOver($here->startedAt, $here->seenAt(), $now)) {
            $this->end($person, $visit);

            return null;
        }
        if ($now->getTimestamp() - $here->seenAt()->getTimestamp() > self::SECONDS) {
            $this->entities->getConnection()->executeStatement(
                'UPDATE visit SET seen_at = ? WHERE id = ?',
                [$now->format('Y-m-d H:i:s'), $here->id],
            );
        }

        return $person;
    }

    /** @return list<Visit> those that are not over, the latest first */
    public function of(Person $person): array
    {
        return array_values(
            $this->entities
                ->getRepository(Visit::class)
                ->findBy(['person' => $person, 'endedAt' => null], ['seenAt' => 'DESC', 'id' => 'DESC'], 30),
        );
    }

    /** @param int|null $but one that goes on */
    public function endAll(Person $person, ?int $but = null): void
    {
        $this->entities->getConnection()->executeStatement(
            'UPDATE visit SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL AND id <> ?',
            [$this->clock->now()->format('Y-m-d H:i:s'), $person->id, $but ?? 0],
        );
    }

    public function end(Person $person, int $visit): void
    {
        $this->entities->getConnection()->executeStatement(
            'UPDATE visit SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL AND id = ?',
            [$this->clock->now()->format('Y-m-d H:i:s'), $person->id, $visit],
        );
    }
}
