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
    public function change(
        Offer $offer,
        PriceBreaks $prices,
        \DateTimeImmutable $from,
        \DateTimeImmutable $today,
        string $source,
    ): void {
        if (
            !$this->entities->contains($offer)
            || null === $this->entities->getRepository(OfferPrice::class)->findOneBy(['offer' => $offer])
        ) {
            $this->entities->persist(new OfferPrice($offer, null, $offer->listPrices(), 'before', true));
        }
        $now = $from->format('Y-m-d') <= $today->format('Y-m-d');
        $this->entities->persist(new OfferPrice($offer, $from, $prices, $source, $now));
        if ($now) {
            $offer->price($prices);
        }
    }

    /**
     * Puts into force what was to begin on or before a day; where several were, the last of them.
     *
     * @return int how many offers changed
     */
    public function putInForce(\DateTimeImmutable $today): int
    {
        $connection = $this->entities->getConnection();
        $due =
            'WITH due AS (SELECT p.*, ROW_NUMBER() OVER (PARTITION BY p.offer_id
                ORDER BY p.from_day DESC, p.id DESC) latest FROM offer_price p
                WHERE p.applied = 0 AND p.from_day <= :today)';
        $values = ['today' => $today->format('Y-m-d')];

        if (
            false ===
            $connection
                ->executeQuery('SELECT 1 FROM offer_price WHERE applied = 0 AND from_day <= :today LIMIT 1', $values)
                ->fetchOne()
        ) {
            return 0;
        }

        return $connection->transactional(static function () use ($connection, $due, $values): int {
            // Two at once take turns; the second finds nothing left to do.
            $connection
                ->executeQuery(
                    'SELECT id FROM offer_price WHERE applied = 0 AND from_day <= :today FOR UPDATE',
                    $values,
                )
                ->free();
            $connection->executeStatement(
                'DELETE b FROM price_break b JOIN offer_price p ON p.offer_id = b.offer_id
                    WHERE p.applied = 0 AND p.from_day <= :today',
                $values,
            );
            $connection->executeStatement(
                "INSERT INTO price_break (offer_id, from_packs, price) $due SELECT due.offer_id, step.from_packs,
                    step.price FROM due,
                JSON_TABLE(due.steps, '$[*]' COLUMNS (from_packs DECIMAL(14, 3) PATH '$[0]', price DECIMAL(14,
                4) PATH '$[1]')) step WHERE due.latest = 1",
                $values,
            );
            $changed = (int) $connection->executeStatement(
                "UPDATE offer o JOIN (
                    SELECT MAX(p.id) id FROM offer_price p JOIN (SELECT offer_id, MAX(from_day) day FROM offer_price
                    WHERE applied = 0 AND from_day <= :today GROUP BY offer_id) last ON last.offer_id = p.offer_id
                    AND last.day = p.from_day
                    WHERE p.applied = 0 GROUP BY p.offer_id) latest JOIN offer_price p ON p.id = latest.id
                    AND p.offer_id = o.id
                 SET o.version = o.version + 1, o.break_kind = p.kind, o.break_basis = p.basis,
                 o.stated_content = IF(p.pack_content <> o.pack_content, '', o.stated_content),
                 o.pack_content = COALESCE(p.pack_content, o.pack_content)",
                $values,
            );
            $connection->executeStatement(
                'UPDATE offer_price SET applied = 1 WHERE applied = 0 AND from_day <= :today',
                $values,
            );

            return $changed;
        });
    }

    /** @return list<OfferPrice> what is to come first, then back in time */
    public function of(Offer $offer): array
    {
        return $this->entities
            ->getRepository(OfferPrice::class)
            ->findBy(['offer' => $offer], ['fromDay' => 'DESC', 'id' => 'DESC']);
    }
}
