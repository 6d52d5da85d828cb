<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Store\Item\Gtins;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Supplier\Supplier;

/** What somebody means who types a code, a name or a GTIN on an order to a supplier. */
final readonly class OfferWanted
{
    public function __construct(private EntityManagerInterface $entities, private Gtins $gtins,
        private ClockInterface $clock)
    {
    }

    /** By our code, theirs, the name or the GTIN; “code · name” is read as the code. */
    public function find(Supplier $supplier, string $words): ?Offer
    {
        return $this->findEach($supplier, [$words])[$words] ?? null;
    }

    /**
     * Many at once, from one query.
     *
     * @param list<string> $words
     *
     * @return array<string, Offer> by the words, where there is one; of several the first choice
     */
    public function findEach(Supplier $supplier, array $words): array
    {
        $codes = $gtins = [];
        foreach ($words as $one) {
            $codes[$one] = ItemCode::chosen($one);
            $gtins[$one] = Gtin::tryOf($codes[$one])->digits ?? '';
        }
        $read = array_values(array_filter($gtins, static fn (string $gtin): bool => '' !== $gtin));
        $packed = array_map(static fn (array $pack): int => $pack['item'], $this->gtins->packs($read));
        /** @var list<Offer> $offers */
        $offers = $this->entities
            ->createQueryBuilder()
            ->select('o', 'i')
            ->from(Offer::class, 'o')
            ->join('o.item', 'i')
            ->where(
                'o.supplier = :supplier AND (i.code IN (:codes) OR o.supplierCode IN (:codes) OR i.gtin IN (:gtins) '
                .'OR i.name IN (:codes) OR i.id IN (:packed))',
            )
            ->setParameter('supplier', $supplier)
            ->setParameter('codes', array_values(array_unique($codes)))
            ->setParameter('gtins', $read)
            ->setParameter('packed', array_values($packed))
            ->orderBy('o.rank')
            ->addOrderBy('o.id')
            ->getQuery()
            ->getResult();
        $known = [];
        foreach ($offers as $offer) {
            foreach ([$offer->item->code, $offer->supplierCode(), $offer->item->name()] as $name) {
                $known[mb_strtolower($name)] ??= $offer;
            }
            foreach ([$offer->item->gtin()->digits ?? 'none',
                ...array_keys($packed, $offer->item->id, true)] as $gtin) {
                $known['gtin '.$gtin] ??= $offer;
            }
        }
        $found = [];
        foreach ($words as $one) {
            $offer = $known[mb_strtolower($codes[$one])] ?? $known['gtin '.$gtins[$one]] ?? null;
            if (null !== $offer && '' !== $codes[$one]) {
                $found[$one] = $offer;
            }
        }

        return $found;
    }

    /** Why there is nothing to be found: who sells it, or that it is unknown; null where it is no item of ours. */
    public function notOffered(Supplier $supplier, string $words): ?string
    {
        $item = $this->entities
            ->getRepository(Item::class)
            ->findOneBy(['code' => ItemCode::chosen($words)]);
        if (null === $item) {
            return null;
        }
        $offers = $this->entities->getRepository(Offer::class)->findBy(['item' => $item], ['rank' => 'ASC']);
        $others = array_unique(array_map(static fn (Offer $other): string => $other->supplier->name(), $offers));
        $who =
            [] === $others
                ? 'nobody does yet. Add an offer on a supplier’s page'
                : implode(', ', $others).(1 === count($others) ? ' does' : ' do');

        return sprintf('%s does not offer %s; %s.', $supplier->name(), $item->code, $who);
    }

    /** @throws InvalidValue if they do not sell it, or not so many */
    public function mustBeSold(Offer $offer, BigDecimal $packs): void
    {
        $objection = match (true) {
            $offer->isBlocked() => sprintf(
                'The offer of %s is blocked; take that back on its page first.',
                $offer->item->code,
            ),
            !$offer->isInForce($this->clock->now()) => sprintf(
                'The offer of %s does not hold today; see its dates on its page.',
                $offer->item->code,
            ),
            default => $packs->isPositive() ? $offer->rule()->objectionTo($packs) : 'Type how many are wanted.',
        };
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
    }
}
