<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\QueryBuilder;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Supplier\Supplier;

/** What suppliers offer, with items and prices read along. */
final readonly class Offers
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param string $words of the item's name or code, or their code; empty for all
     *
     * @return list<Offer> by the item's name
     */
    public function of(Supplier $supplier, string $words = '', ?int $most = null): array
    {
        $query = $this->ofSupplier($supplier, $most);
        if ('' !== $words) {
            $query
                ->andWhere('i.name LIKE :like OR i.code LIKE :like OR o.supplierCode LIKE :like')
                ->setParameter('like', '%'.addcslashes($words, '%_\\').'%');
        }

        return $this->withPrices($query);
    }

    /** @return list<Offer> whoever sells it, the first choice first, with suppliers and prices */
    public function ofItem(Item $item): array
    {
        /** @var list<Offer> $offers */
        $offers = $this->entities
            ->createQueryBuilder()
            ->select('o', 's', 'b')
            ->from(Offer::class, 'o')
            ->join('o.supplier', 's')
            ->leftJoin('o.breaks', 'b')
            ->where('o.item = :item')
            ->setParameter('item', $item)
            ->orderBy('o.rank')
            ->addOrderBy('o.id')
            ->addOrderBy('b.fromPacks')
            ->getQuery()
            ->getResult();

        return $offers;
    }

    /** @return list<OfferName> whoever sells it, the first choice first */
    public function names(Item $item): array
    {
        $trip = new OneTrip();
        OfferName::ask($trip, $item);

        return OfferName::in($trip->answers($this->entities->getConnection()));
    }

    /**
     * @return list<Offer> that may be bought on a day, by the view offer_in_force; Offer::isInForce() says the same of
     *      one
     */
    public function inForce(Supplier $supplier, \DateTimeImmutable $day, int $most): array
    {
        /** @var list<int> $ids */
        $ids = $this->entities
            ->getConnection()
            ->fetchFirstColumn(
                'SELECT id FROM offer_in_force WHERE supplier_id = ? AND ? BETWEEN from_day AND until_day',
                [$supplier->id, $day->format('Y-m-d')],
            );

        return $this->withPrices(
            $this->ofSupplier($supplier, $most)->andWhere('o.id IN (:ids)')->setParameter('ids', $ids),
        );
    }

    /**
     * @param list<Offer> $offers of one supplier
     *
     * @return array<int, string> the short names of others who sell the items, by item, the first choice first
     */
    public function othersWhoSell(array $offers, \DateTimeImmutable $day): array
    {
        if ([] === $offers) {
            return [];
        }
        /** @var array<int, string> $others */
        $others = $this->entities->getConnection()->fetchAllKeyValue(
            "SELECT o.item_id, GROUP_CONCAT(DISTINCT SUBSTRING_INDEX(s.name, ' ', 1) ORDER BY o.rank SEPARATOR ', ')
             FROM offer_in_force f JOIN offer o ON o.id = f.id JOIN supplier s ON s.id = o.supplier_id
             WHERE f.item_id IN (?) AND f.supplier_id <> ? AND ? BETWEEN f.from_day AND f.until_day GROUP BY o.item_id",
            [
                array_map(static fn (Offer $offer): int => $offer->item->id, $offers),
                $offers[0]->supplier->id,
                $day->format('Y-m-d'),
            ],
            [ArrayParameterType::INTEGER],
        );

        return $others;
    }

    /** @return list<Offer> that something agreed reaches, whether or not something more particular decides them */
    public function inScopeOf(PriceTerm $term, int $most): array
    {
        $query = $this->entities
            ->createQueryBuilder()
            ->select('o', 'i', 's')
            ->from(Offer::class, 'o')
            ->join('o.item', 'i')
            ->join('o.supplier', 's')
            ->where('s.archivedOn IS NULL AND i.archivedOn IS NULL AND o.blocked = false')
            ->orderBy('s.name')
            ->addOrderBy('i.name')
            ->setMaxResults($most);
        if (null !== $term->supplier()) {
            $query->andWhere('o.supplier = :supplier')->setParameter('supplier', $term->supplier());
        } elseif ('' !== $term->supplierGroup()) {
            $query->andWhere('s.priceGroup = :whom')->setParameter('whom', $term->supplierGroup());
        }
        if (null !== $term->item()) {
            $query->andWhere('o.item = :item')->setParameter('item', $term->item());
        } elseif ('' !== $term->itemGroup()) {
            $query->andWhere('i.priceGroup = :what')->setParameter('what', $term->itemGroup());
        }
        if ('' !== $term->currency()) {
            $query->andWhere('s.currency = :currency')->setParameter('currency', $term->currency());
        }

        return $this->withPrices($query);
    }

    private function ofSupplier(Supplier $supplier, ?int $most): QueryBuilder
    {
        return $this->entities
            ->createQueryBuilder()
            ->select('o', 'i')
            ->from(Offer::class, 'o')
            ->join('o.item', 'i')
            ->where('o.supplier = :supplier')
            ->setParameter('supplier', $supplier)
            ->orderBy('i.name')
            ->addOrderBy('o.packName')
            ->setMaxResults($most);
    }

    /** @return list<Offer> */
    private function withPrices(QueryBuilder $query): array
    {
        /** @var list<Offer> $offers */
        $offers = $query->getQuery()->getResult();
        if ([] !== $offers) {
            // One query for all their prices, so that none is fetched on its own; joined to the first it would cut the
            // list short.
            $this->entities
                ->createQueryBuilder()
                ->select('o', 'b')
                ->from(Offer::class, 'o')
                ->join('o.breaks', 'b')
                ->where('o IN (:offers)')
                ->setParameter('offers', $offers)
                ->getQuery()
                ->getResult();
        }

        return $offers;
    }

    /**
     * @param list<int> $items
     *
     * @return list<Supplier> who offers any of them on a day, by name
     */
    public function suppliersOf(array $items, \DateTimeImmutable $day): array
    {
        /** @var list<int> $ids */
        $ids =
            [] === $items
                ? []
                : $this->entities
                    ->getConnection()
                    ->fetchFirstColumn(
                        'SELECT DISTINCT supplier_id FROM offer_in_force
                            WHERE item_id IN (?) AND ? BETWEEN from_day AND until_day',
                        [$items, $day->format('Y-m-d')],
                        [ArrayParameterType::INTEGER],
                    );

        return $this->entities->getRepository(Supplier::class)->findBy(['id' => $ids], ['name' => 'ASC']);
    }
}
