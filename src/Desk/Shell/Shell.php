<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\RequestStack;
use TallBarrel\Desk\Today\TodayList;
use TallBarrel\Store\Business\KeptFigures;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;

/** What every page carries: the stages of the work with what waits at each, and the site being looked at. */
final class Shell
{
    private const SITE = 'site';

    /** @var list<RunStage>|null read once a request */
    private ?array $stages = null;
    /** @var list<Site>|null */
    private ?array $sites = null;

    public function __construct(
        private readonly Connection $connection,
        private readonly RequestStack $requests,
        private readonly Sites $allSites,
        private readonly TodayList $today,
        private readonly KeptFigures $figures,
        private readonly ClockInterface $clock,
    ) {
    }

    /** @return list<RunStage> */
    public function stages(): array
    {
        return $this->stages ??= $this->countStages();
    }

    /** @return list<RunStage> */
    private function countStages(): array
    {
        $site = $this->site()?->id;
        $now = $this->clock->now();
        $kept = sprintf('today-%d-%s', $site ?? 0, $now->format('Ymd'));
        /** @var array{due: int, orders: int, dock: int, quotes: int, today: int|null} $waiting */
        $waiting = $this->connection->fetchAssociative(
            "SELECT (SELECT COUNT(*) FROM proposal WHERE listed = 1 AND draft_id IS NULL AND (:site IS NULL
                OR site_id = :site)
                        AND NOT EXISTS (SELECT 1 FROM put_off f
                        WHERE f.item_id = proposal.item_id AND f.site_id = proposal.site_id
                        AND f.until_day > :day)) due,
                    (SELECT COUNT(*) FROM purchase_order WHERE state IN ('draft', 'awaiting-approval', 'approved', ".
                Orders::openStates().
                ')) orders,
                    (SELECT COUNT(DISTINCT order_id) FROM open_line WHERE due <= :day) dock,
                    (SELECT COUNT(*) FROM quote_round WHERE sent_at IS NOT NULL AND settled_at IS NULL) quotes,
                    (SELECT figure FROM kept_figure WHERE name = :kept AND until > :now) today',
            ['site' => $site, 'day' => $now->format('Y-m-d'), 'kept' => $kept, 'now' => $now->getTimestamp()],
        );
        $today = $waiting['today'];
        if (null === $today) {
            $today = count($this->today->entries($this->site()));
            $this->figures->keep($kept, $today, $now);
        }

        return [
            new RunStage('today', 'Today', 't', $today, $today > 0),
            new RunStage('reorder', 'Reorder', 'r', $waiting['due']),
            new RunStage('compare', 'Compare', 'c', $waiting['quotes']),
            new RunStage('orders', 'Orders', 'o', $waiting['orders']),
            new RunStage('dock', 'Dock', 'd', $waiting['dock']),
            new RunStage('stock', 'Stock', 's'),
            new RunStage('suppliers', 'Suppliers', 'u'),
            new RunStage('items', 'Items', 'i'),
        ];
    }

    /** The site being looked at; null for all. */
    public function site(): ?Site
    {
        $request = $this->requests->getCurrentRequest();
        $id = null !== $request && $request->hasSession() ? $request->getSession()->get(self::SITE) : null;

        return is_int($id) ? $this->allSites->find($id) : null;
    }

    public function lookAt(?Site $site): void
    {
        $this->requests->getSession()->set(self::SITE, $site?->id);
    }

    /** @return list<Site> */
    public function sites(): array
    {
        return $this->sites ??= $this->allSites->all();
    }
}
