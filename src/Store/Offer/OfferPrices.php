<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** What offers cost over time: every change of price goes through here, so that the old one stays known. */
final readonly class OfferPrices
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** From today on at once, from a later day when that comes. The caller flushes. */
    public function change(Offer $offer, PriceBreaks $prices, \DateTimeImmutable $from, \DateTimeImmutable $today, string $source): void
    {
        if (!$this->entities->contains($offer) || null === $this->entities->getRepository(OfferPrice::class)->findOneBy(['offer' => $offer])) {
            $this->entities->persist(new OfferPrice($offer, null, $offer->listPrices(), 'before', true));
        }
        $now = $from->format('Y-m-d') <= $today->format('Y-m-d');
        $this->entities->persist(new OfferPrice($offer, $from, $prices, $source, $now));
        if ($now) {
            $offer->price($prices);
        }
    }

    /** Puts into force what was to begin on or before a day. @return int how many prices changed */
    public function catchUp(\DateTimeImmutable $today): int
    {
        /** @var list<OfferPrice> $due */
        $due = $this->entities->createQueryBuilder()->select('p', 'o')->from(OfferPrice::class, 'p')->join('p.offer', 'o')
            ->where('p.applied = false AND p.fromDay <= :today')->setParameter('today', $today->format('Y-m-d'))->orderBy('p.fromDay')->addOrderBy('p.id')->getQuery()->getResult();
        foreach ($due as $price) {
            $price->apply();
        }
        if ([] !== $due) {
            $this->entities->flush();
        }

        return count($due);
    }

    /** @return list<OfferPrice> latest first */
    public function of(Offer $offer): array
    {
        return $this->entities->getRepository(OfferPrice::class)->findBy(['offer' => $offer], ['id' => 'DESC']);
    }
}
