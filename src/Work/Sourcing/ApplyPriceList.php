<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Offer\PriceList;
use TallBarrel\Store\Offer\PriceLists;
use TallBarrel\Store\Offer\StandingOffers;
use TallBarrel\Store\Person\Person;

/**
 * Applies what is chosen of a price list, in one transaction and in sets, however long it is; or puts the list away.
 */
final readonly class ApplyPriceList
{
    public function __construct(
        private EntityManagerInterface $entities,
        private PriceLists $lists,
        private OfferPrices $prices,
        private Audit $audit,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
    ) {
    }

    /**
     * A worker does it; the list says how it went.
     *
     * @throws Refused if it was done before
     */
    public function ask(PriceList $list, Person $person): void
    {
        $this->entities->wrapInTransaction(function () use ($list, $person): void {
            $this->entities->lock($list, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($list);
            $list->startApplying();
            $this->entities->flush();
            $this->bus->dispatch(new PriceListToApply($list->id, $person->id));
        });
    }

    /** Done twice, the second finds it applied. */
    #[AsMessageHandler]
    public function carryOut(PriceListToApply $message): void
    {
        $list = $this->entities->find(PriceList::class, $message->list);
        $person = $this->entities->find(Person::class, $message->person);
        if (null === $list || null === $person || !$list->isApplying()) {
            return;
        }
        try {
            $this->apply($list, $person);
        } catch (Refused $refused) {
            $list->couldNotBeApplied($refused->getMessage());
            $this->entities->flush();
        }
    }

    /**
     * Applies what is chosen, all of it or nothing: from today at once, from a later day when that comes.
     *
     * @return int how many lines
     *
     * @throws Refused if it was done before, nothing is chosen, or an offer has changed since the list was read
     */
    private function apply(PriceList $list, Person $person): int
    {
        // A refusal must leave the list readable, so that it can say why.
        return $this->entities->getConnection()->transactional(function () use ($list, $person): int {
            $this->entities->lock($list, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($list);
            $list->mustBeApplying();
            $connection = $this->entities->getConnection();
            $connection
                ->executeQuery('SELECT id FROM offer WHERE supplier_id = ? FOR UPDATE', [$list->supplier->id])
                ->free();
            $this->refuseWhatMovedMeanwhile($list);
            $today = $this->clock->now()->format('Y-m-d');
            $values = [
                'list' => $list->id,
                'supplier' => $list->supplier->id,
                'today' => $today,
                'from' => $list->fromDay()->format('Y-m-d'),
                'until' => $list->untilDay()?->format('Y-m-d'),
                'source' => mb_substr($list->label(), 0, 120),
            ];
            $chosen = array_sum(array_column($this->lists->counts($list), 'chosen'));
            if (0 === $chosen) {
                throw new Refused('No line is chosen; tick what is to be applied.');
            }
            // Offers that are new: with their prices, from the list's first day on.
            $connection->executeStatement(
                "INSERT INTO offer (version, supplier_id, item_id, supplier_code, description, pack_name, pack_content,
                    minimum, multiple, split, lead_days, rank, valid_from, valid_until, usual_charges)
                 SELECT 1, :supplier, r.item_id, r.code, r.description, r.pack_name, r.content, r.minimum, r.multiple,
                 0, r.lead_days, COALESCE((SELECT MAX(o.rank) FROM offer o
                 WHERE o.item_id = r.item_id), 0) + 1, :from, :until, '[]'
                 FROM price_list_row r WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'",
                $values,
            );
            $connection->executeStatement(
                "UPDATE price_list_row r JOIN offer o ON o.supplier_id = :supplier AND o.item_id = r.item_id
                    AND o.pack_name = r.pack_name SET r.offer_id = o.id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'",
                $values,
            );
            // Old prices stay as history; the new ones join it and come into force with their day.
            $connection->executeStatement(
                "INSERT INTO offer_price (offer_id, from_day, steps, kind, basis, pack_content, source, applied)
                 SELECT r.offer_id, NULL, r.old_steps, o.break_kind, o.break_basis, o.pack_content, 'before', 1
                 FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall')
                 AND NOT EXISTS (SELECT 1 FROM offer_price p WHERE p.offer_id = o.id)",
                $values,
            );
            $connection->executeStatement(
                "INSERT INTO offer_price (offer_id, from_day, steps, kind, basis, pack_content, source, applied)
                 SELECT r.offer_id, IF(r.move = 'added', LEAST(:from, :today), :from), r.steps, o.break_kind,
                 o.break_basis, r.content, :source, 0 FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall', 'added')",
                $values,
            );
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id
                    SET o.version = o.version + 1, o.valid_until = IF(:until IS NULL AND o.valid_until >= :from,
                    o.valid_until, :until)
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall', 'same')
                 AND (o.valid_until IS NOT NULL OR :until IS NOT NULL)",
                $values,
            );
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id
                    SET o.version = o.version + 1, o.valid_until = LEAST(COALESCE(o.valid_until, '9999-12-31'),
                    DATE_SUB(:from, INTERVAL 1 DAY)), o.valid_from = IF(o.valid_from >= :from, NULL, o.valid_from)
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'gone'",
                $values,
            );
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id
                    SET o.version = o.version + 1, o.supplier_code = r.code
                 WHERE r.list_id = :list AND r.chosen = 1 AND o.supplier_code = '' AND r.code <> ''",
                $values,
            );
            $this->prices->putInForce($this->clock->now());
            $connection->executeStatement(
                'INSERT INTO moved_item (item_id) SELECT DISTINCT item_id FROM price_list_row
                    WHERE list_id = :list AND chosen = 1 AND item_id IS NOT NULL',
                $values,
            );
            $list->settle(PriceList::APPLIED, $this->clock->now(), $chosen);
            $this->audit->note(
                $person,
                'supplier '.$list->supplier->code,
                sprintf(
                    'Applied %d lines of the %s, from %s',
                    $chosen,
                    $list->label(),
                    $list->fromDay()->format('j M Y'),
                ),
            );

            $this->entities->flush();

            return $chosen;
        });
    }

    /** @throws Refused */
    public function putAway(PriceList $list): void
    {
        $list->settle(PriceList::LEFT, $this->clock->now());
        $this->entities->flush();
    }

    /** @throws Refused */
    private function refuseWhatMovedMeanwhile(PriceList $list): void
    {
        /** @var list<string> $moved */
        $moved = $this->entities->getConnection()->fetchFirstColumn(
            'SELECT r.code FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                JOIN price_break b ON b.offer_id = o.id WHERE r.list_id = :list AND r.chosen = 1
             GROUP BY r.id HAVING '.
                StandingOffers::STEPS.
                " <> MAX(r.old_steps) OR MAX(o.pack_content) <> MAX(r.old_content)
             UNION ALL
             SELECT r.code FROM price_list_row r JOIN offer o ON o.supplier_id = :supplier AND o.item_id = r.item_id
             AND o.pack_name = r.pack_name WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'",
            ['list' => $list->id, 'supplier' => $list->supplier->id],
        );
        if ([] !== $moved) {
            throw new Refused(
                sprintf(
                    '%s changed since this list was read: %s%s. Nothing was applied; bring the list again to see it '
                    .'against what stands now.',
                    1 === count($moved) ? 'An offer' : count($moved).' offers',
                    implode(', ', array_slice($moved, 0, 5)),
                    count($moved) > 5 ? ' and more' : '',
                ),
            );
        }
    }
}
