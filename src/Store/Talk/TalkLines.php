<?php

declare(strict_types=1);

namespace TallBarrel\Store\Talk;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Person\Person;

final readonly class TalkLines
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @return array{lines: list<TalkLine>, people: list<Person>} what was said of a subject, the first first, and
     *      everybody, who may be asked
     */
    public function about(string $subject): array
    {
        $lines = $people = [];
        /** @var list<Person|TalkLine|null> $found everybody, each followed by what they said */
        $found = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT p, l FROM %s p LEFT JOIN %s l WITH l.by = p AND l.subject = :subject ORDER BY p.name, l.id',
                    Person::class,
                    TalkLine::class,
                ),
            )
            ->setParameter('subject', $subject)
            ->getResult();
        foreach ($found as $one) {
            if ($one instanceof Person) {
                $people[$one->id] = $one;
            } elseif (null !== $one) {
                $lines[$one->id] = $one;
            }
        }
        ksort($lines);

        return ['lines' => array_values($lines), 'people' => array_values($people)];
    }

    /** @return list<TalkLine> of a subject */
    public function of(string $subject): array
    {
        return $this->entities->getRepository(TalkLine::class)->findBy(['subject' => $subject]);
    }
}
