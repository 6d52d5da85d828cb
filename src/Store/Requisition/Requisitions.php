<?php

declare(strict_types=1);

namespace TallBarrel\Store\Requisition;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemSearch;
use TallBarrel\Store\Person\Person;

final readonly class Requisitions
{
    /** So many of those that are decided are shown. */
    private const SETTLED = 50;
    private const FOUND = 8;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @throws Refused */
    public function lock(int $id): Requisition
    {
        return $this->entities->find(Requisition::class, $id, LockMode::PESSIMISTIC_WRITE)
            ?? throw new Refused('That requisition is gone.');
    }

    /** @return list<Requisition> that wait for a buyer, the soonest wanted first */
    public function waiting(): array
    {
        return $this->read("r.state = 'asked'", 'r.wantedOn, r.id', null);
    }

    /**
     * @param Person|null $by null for everybody's
     *
     * @return list<Requisition> the latest first
     */
    public function decided(?Person $by): array
    {
        return $this->read("r.state <> 'asked'", 'r.decidedAt DESC, r.id DESC', $by, self::SETTLED);
    }

    /** @return list<Requisition> */
    public function askedBy(Person $by): array
    {
        return $this->read("r.state = 'asked'", 'r.id DESC', $by);
    }

    /** @return list<Requisition> */
    private function read(string $where, string $order, ?Person $by, ?int $most = null): array
    {
        $query = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT r, p, i, s, d, o, q FROM %s r JOIN r.by p JOIN r.site s LEFT JOIN r.item i
                     LEFT JOIN r.decidedBy d LEFT JOIN r.order o LEFT JOIN r.round q WHERE %s %s ORDER BY %s',
                    Requisition::class,
                    $where,
                    null === $by ? '' : 'AND r.by = :by',
                    $order,
                ),
            )
            ->setMaxResults($most);
        if (null !== $by) {
            $query->setParameter('by', $by);
        }
        /** @var list<Requisition> $found */
        $found = $query->getResult();

        return $found;
    }

    /** The item somebody means; null where it is none of ours, or more than one. */
    public function meant(string $words): ?Item
    {
        $code = ItemCode::chosen($words);
        $exact = $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
        if (null !== $exact) {
            return $exact;
        }
        $found = array_filter($this->like($words), static fn (Item $item): bool => 0 === strcasecmp(
            $item->name(),
            trim($words),
        ));

        return 1 === count($found) ? reset($found) : null;
    }

    /** @return list<Item> with all these words in code, name or GTIN */
    public function like(string $words): array
    {
        $search = ItemSearch::of($words);
        $ids = $this->entities->getConnection()->fetchFirstColumn(
            'SELECT i.id FROM item i WHERE i.archived_on IS NULL AND '.$search->condition.'
             ORDER BY i.name LIMIT '.self::FOUND,
            $search->values,
        );
        $items = array_values($this->entities->getRepository(Item::class)->findBy(['id' => $ids], ['name' => 'ASC']));

        return $items;
    }

    /**
     * @param list<int> $items
     *
     * @return array<int, list<string>> codes of suppliers who offer them, by item, the first choice first
     */
    public function sellers(array $items): array
    {
        $codes = [];
        /** @var list<array{item_id: int, code: string}> $rows */
        $rows = $this->entities
            ->getConnection()
            ->fetchAllAssociative(
                'SELECT DISTINCT o.item_id, s.code, o.`rank` FROM offer o JOIN supplier s ON s.id = o.supplier_id
                 WHERE o.item_id IN (?) AND o.blocked = 0 ORDER BY o.item_id, o.`rank`, s.code',
                [$items],
                [ArrayParameterType::INTEGER],
            );
        foreach ($rows as $row) {
            $codes[$row['item_id']][] = $row['code'];
        }

        return $codes;
    }
}
