<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Site\Site;

/** What every page counts, from one query, read once a request: whatever changes it does so before. */
final class WaitingCounts implements ResetInterface
{
    /** @var array<int, Waiting> by site, 0 for all */
    private array $read = [];

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    public function at(?Site $site): Waiting
    {
        return $this->read[$site->id ?? 0] ??= $this->count($site);
    }

    public function reset(): void
    {
        $this->read = [];
    }

    private function count(?Site $site): Waiting
    {
        $now = $this->clock->now();
        /**
         * @var array{proposals: int, orders: int, dock: int, rounds: int, settle: int, toPay: int,
         *      moved: int, stopped: int, lists: int, putOff: int, imports: int, today: int|null} $row
         */
        $row = $this->connection->fetchAssociative(
            "SELECT (SELECT COUNT(*) FROM proposal p
                        WHERE p.listed = 1 AND p.draft_id IS NULL AND (:site IS NULL OR p.site_id = :site)
                        AND NOT EXISTS (SELECT 1 FROM put_off f WHERE f.item_id = p.item_id AND f.site_id = p.site_id
                            AND f.until_day > :day)) proposals,
                    (SELECT COUNT(*) FROM purchase_order WHERE state IN ('draft', 'awaiting-approval', 'approved', ".
                Orders::openStates().
                ")) orders,
                    (SELECT COUNT(DISTINCT order_id) FROM open_line WHERE due <= :day) dock,
                    (SELECT COUNT(*) FROM quote_round WHERE sent_at IS NOT NULL AND settled_at IS NULL) rounds,
                    (SELECT COUNT(*) FROM invoice WHERE state = 'entered') settle,
                    (SELECT COUNT(*) FROM invoice WHERE state = 'settled') toPay,
                    (SELECT COUNT(*) FROM (SELECT item_id FROM moved_item WHERE item_id IS NOT NULL
                        UNION SELECT o.item_id FROM moved_item m
                        JOIN offer o ON o.supplier_id = m.supplier_id) m) moved,
                    (SELECT COUNT(*) FROM queued_message WHERE queue_name = 'failed') stopped,
                    (SELECT COUNT(*) FROM price_list WHERE state = 'read') lists,
                    (SELECT COUNT(*) FROM put_off WHERE until_day > :day) putOff,
                    (SELECT COUNT(*) FROM import_run WHERE state = 'applied') imports,
                    (SELECT figure FROM kept_figure WHERE name = :kept AND until > :now) today",
            [
                'site' => $site?->id,
                'day' => $now->format('Y-m-d'),
                'kept' => KeptFigures::today($site, $now),
                'now' => $now->getTimestamp(),
            ],
        );

        return new Waiting(...$row);
    }
}
