<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Site\Site;

/** What customers were promised, found. */
final readonly class Promises
{
    private const MOST = 300;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function find(int $id): ?CustomerPromise
    {
        return $this->entities->find(CustomerPromise::class, $id);
    }

    /** @return list<CustomerPromise> the open ones by their day, else the latest settled first */
    public function all(?Site $site, bool $open, string $words = ''): array
    {
        $query = $this->entities
            ->createQueryBuilder()
            ->select('p', 'i', 's')
            ->from(CustomerPromise::class, 'p')
            ->join('p.item', 'i')
            ->join('p.site', 's')
            ->where($open ? 'p.settledOn IS NULL' : 'p.settledOn IS NOT NULL')
            ->orderBy($open ? 'p.wantedOn' : 'p.settledOn', $open ? 'ASC' : 'DESC')
            ->addOrderBy('p.id')
            ->setMaxResults(self::MOST);
        if (null !== $site) {
            $query->andWhere('p.site = :site')->setParameter('site', $site);
        }
        if ('' !== $words) {
            $query->andWhere('i.code LIKE :w OR i.name LIKE :w OR p.customer LIKE :w OR p.reference LIKE :w')
                ->setParameter('w', '%'.addcslashes($words, '%_\\').'%');
        }
        /** @var list<CustomerPromise> $promises */
        $promises = $query->getQuery()->getResult();

        return $promises;
    }

    /**
     * @param list<int> $items
     *
     * @return array<int, list<CustomerPromise>> open ones by item, the soonest first
     */
    public function openOf(array $items): array
    {
        $found = [];
        $open = [] === $items ? [] : $this->entities
            ->getRepository(CustomerPromise::class)
            ->findBy(['item' => $items, 'settledOn' => null], ['wantedOn' => 'ASC', 'id' => 'ASC']);
        foreach ($open as $promise) {
            $found[$promise->item->id][] = $promise;
        }

        return $found;
    }

    /**
     * On which orders they are bought.
     *
     * @param list<CustomerPromise> $promises
     *
     * @return array<int, string> number of the latest order, by promise
     */
    public function ordered(array $promises): array
    {
        /** @var array<int, string> $numbers */
        $numbers = [] === $promises ? [] : $this->entities->getConnection()->fetchAllKeyValue(
            "SELECT l.promise_id, MAX(o.number) FROM order_line l JOIN purchase_order o ON o.id = l.order_id
             WHERE l.promise_id IN (?) AND o.state <> 'cancelled' GROUP BY l.promise_id",
            [array_map(static fn (CustomerPromise $one): int => $one->id, $promises)],
            [ArrayParameterType::INTEGER],
        );

        return $numbers;
    }

    /**
     * Of the open ones, what is there for each item at its site.
     *
     * @param list<CustomerPromise> $promises
     *
     * @return array<string, float> stock units by "item:site"
     */
    public function held(array $promises): array
    {
        $items = array_values(array_unique(array_map(static fn (CustomerPromise $one): int => $one->item->id,
            $promises)));
        /** @var array<string, string> $held */
        $held = [] === $items ? [] : $this->entities->getConnection()->fetchAllKeyValue(
            "SELECT CONCAT(item_id, ':', site_id), units FROM on_hand WHERE item_id IN (?)",
            [$items],
            [ArrayParameterType::INTEGER],
        );

        return array_map(floatval(...), $held);
    }
}
