<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\QueryBuilder;

/** What was noted, looked through: by whom, on what, from when until when. */
final readonly class AuditTrail
{
    public const A_PAGE = 100;
    /** As many as a file holds; whoever wants more asks for fewer days. */
    public const A_FILE = 100_000;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param int|null $before the id of the entry after which the page begins
     *
     * @return list<AuditEntry> latest first, one more than a page holds where there are more
     */
    public function page(SoughtEntries $sought, ?int $before = null): array
    {
        $query = $this->query($sought)->setMaxResults(self::A_PAGE + 1);
        $last = null === $before ? null : $this->entities->find(AuditEntry::class, $before);
        if (null !== $last) {
            $query->andWhere('e.at < :at OR (e.at = :at AND e.id < :id)')
                ->setParameter('at', $last->at)
                ->setParameter('id', $last->id);
        }
        /** @var list<AuditEntry> $entries */
        $entries = $query->getQuery()->getResult();

        return $entries;
    }

    /** @return iterable<AuditEntry> latest first */
    public function all(SoughtEntries $sought): iterable
    {
        /** @var iterable<AuditEntry> $entries */
        $entries = $this->query($sought)->setMaxResults(self::A_FILE)->getQuery()->toIterable();
        $count = 0;
        foreach ($entries as $entry) {
            yield $entry;
            if (0 === ++$count % 1000) {
                $this->entities->clear();
            }
        }
    }

    private function query(SoughtEntries $sought): QueryBuilder
    {
        $query = $this->entities->createQueryBuilder()
            ->select('e', 'p')
            ->from(AuditEntry::class, 'e')
            ->leftJoin('e.person', 'p')
            ->orderBy('e.at', 'DESC')
            ->addOrderBy('e.id', 'DESC');
        if (null !== $sought->person) {
            $query->andWhere('e.person = :person')->setParameter('person', $sought->person);
        }
        if ('' !== $sought->words) {
            $query->andWhere('e.subject LIKE :words OR e.words LIKE :words')
                ->setParameter('words', '%'.addcslashes($sought->words, '%_\\').'%');
        }
        if (null !== $sought->from) {
            $query->andWhere('e.at >= :from')->setParameter('from', $sought->from->setTime(0, 0));
        }
        if (null !== $sought->until) {
            $query->andWhere('e.at < :until')
                ->setParameter('until', $sought->until->setTime(0, 0)->modify('+1 day'));
        }

        return $query;
    }
}
