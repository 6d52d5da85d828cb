<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemUses;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;

/**
 * An item that stands twice becomes one: its stock, its sales, its offers and its places go over, and the double is
 * archived. What was booked stays where it was booked; the stock goes over by two movements.
 */
final readonly class JoinItems
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Balances $balances,
        private Ledger $ledger,
        private ItemUses $uses,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Item $double what goes
     * @param Item $into   what stays
     *
     * @throws Refused if they are counted differently, or the double is still on its way somewhere
     */
    public function join(Item $double, Item $into, Person $by): void
    {
        if ($double === $into) {
            throw new Refused(sprintf('%s cannot be joined with itself.', $into->code));
        }
        if ($double->unit !== $into->unit || $double->isLotTracked() !== $into->isLotTracked()) {
            throw new Refused(sprintf(
                '%s is counted in %s%s, %s in %s%s; make that the same first.',
                $double->code,
                $double->unit->symbol(),
                $double->isLotTracked() ? ' by lot' : '',
                $into->code,
                $into->unit->symbol(),
                $into->isLotTracked() ? ' by lot' : '',
            ));
        }
        $open = $this->uses->open($double->id);
        if ([] !== $open) {
            throw new Refused(sprintf('%s is still in %s; finish that first.', $double->code, implode(', ', $open)));
        }
        $this->whole->take(function () use ($double, $into, $by): void {
            foreach ([$double, $into] as $item) {
                $this->entities->lock($item, LockMode::PESSIMISTIC_WRITE);
                $this->entities->refresh($item);
            }
            if ($double->isArchived()) {
                throw new Refused(sprintf('%s is archived already.', $double->code));
            }
            $this->moveStock($double, $into, $by);
            $this->moveTheRest($double->id, $into->id);
            $this->moved->note([$into->id]);
            $gtin = $double->gtin();
            $double->mark(null);
            $this->entities->flush();
            if (null === $into->gtin()) {
                $into->mark($gtin);
            }
            $names = array_filter(
                [$into->furtherNames(), $double->code, $double->name(), $double->furtherNames()],
                static fn (string $name): bool => '' !== $name,
            );
            $into->isAlsoCalled(mb_substr(implode(', ', array_unique($names)), 0, 300));
            $double->archive($this->clock->now()->setTime(0, 0));
            $this->audit->note($by, 'item '.$double->code, 'Joined with '.$into->code);
            $this->audit->note($by, 'item '.$into->code, 'Took in its double '.$double->code);
        });
    }

    private function moveStock(Item $double, Item $into, Person $by): void
    {
        $held = $this->balances->lockedOf($double->id);
        $there = BigDecimal::sum(BigDecimal::zero(), ...array_column($this->balances->lockedOf($into->id), 'quantity'));
        $average = $into->averageCost();
        $cost = $double->averageCost() ?? $into->averageCost();
        $day = $this->clock->now()->setTime(0, 0);
        $postings = [];
        foreach ($held as $one) {
            foreach ([[$double, $one->quantity->negated()], [$into, $one->quantity]] as [$item, $quantity]) {
                $postings[] = new Posting(
                    $item->id,
                    $one->site,
                    MovementKind::Joined,
                    $quantity,
                    $item === $into ? $cost : null,
                    $day,
                    $item === $into ? $double->code : $into->code,
                    sprintf('join-%d-%d-%d-%s-%s', $double->id, $item->id, $one->site, $one->state->value, $one->lot),
                    $one->lot,
                    $one->state,
                );
            }
        }
        $this->connection->executeStatement(
            'INSERT INTO lot (item_id, number, expires_on) SELECT ?, number, expires_on FROM lot o WHERE o.item_id = ?
             ON DUPLICATE KEY UPDATE expires_on = COALESCE(lot.expires_on, VALUES(expires_on))',
            [$into->id, $double->id],
        );
        $this->ledger->enter($postings, $by->id);
        foreach ($held as $one) {
            if (null !== $cost && $one->quantity->isPositive()) {
                $average = AverageCost::after($there, $average, $one->quantity, $cost);
            }
            $there = $there->plus($one->quantity);
        }
        if (null !== $average) {
            $into->averageNow($average);
        }
    }

    private function moveTheRest(int $double, int $into): void
    {
        $this->connection->executeStatement(
            'INSERT INTO sales_day (item_id, site_id, day, quantity, out_of_stock)
             SELECT ?, site_id, day, quantity, out_of_stock FROM sales_day o WHERE o.item_id = ?
             ON DUPLICATE KEY UPDATE quantity = sales_day.quantity + VALUES(quantity),
                out_of_stock = sales_day.out_of_stock AND VALUES(out_of_stock)',
            [$into, $double],
        );
        $this->connection->executeStatement('DELETE FROM sales_day WHERE item_id = ?', [$double]);
        $this->connection->executeStatement(
            'INSERT IGNORE INTO stocking (item_id, site_id, bin_id) SELECT ?, site_id, bin_id FROM stocking o
             WHERE o.item_id = ?',
            [$into, $double],
        );
        foreach (['stocking', 'item_policy', 'site_policy', 'put_off', 'history_verdict', 'proposal'] as $table) {
            $this->connection->executeStatement('DELETE FROM '.$table.' WHERE item_id = ?', [$double]);
        }
        foreach (['offer', 'planned_demand', 'requisition', 'agreement', 'price_term'] as $table) {
            $this->connection->executeStatement(
                'UPDATE '.$table.' SET item_id = ? WHERE item_id = ?',
                [$into, $double],
            );
        }
        $this->connection->executeStatement(
            'UPDATE IGNORE order_list_item SET item_id = ? WHERE item_id = ?',
            [$into, $double],
        );
        $this->connection->executeStatement('DELETE FROM order_list_item WHERE item_id = ?', [$double]);
        $this->connection->executeStatement(
            'UPDATE IGNORE item_pack SET item_id = ? WHERE item_id = ?',
            [$into, $double],
        );
        $this->connection->executeStatement(
            'UPDATE item SET sells_like_id = NULLIF(?, id) WHERE sells_like_id = ?',
            [$into, $double],
        );
    }
}
