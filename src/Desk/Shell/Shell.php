<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\RequestStack;
use TallBarrel\Desk\Today\TodayList;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;

/** What every page carries: the stages of the work with what waits at each, and the site being looked at. */
final readonly class Shell
{
    private const SITE = 'site';

    public function __construct(private Connection $connection, private RequestStack $requests, private Sites $sites, private TodayList $today, private ClockInterface $clock)
    {
    }

    /** @return list<array{route: string, name: string, key: string, count: int|null, alarm: bool}> */
    public function stages(): array
    {
        $site = $this->site()?->id;
        /** @var array{due: int, orders: int, dock: int, quotes: int} $waiting */
        $waiting = $this->connection->fetchAssociative(
            "SELECT (SELECT COUNT(*) FROM proposal WHERE listed = 1 AND draft_id IS NULL AND (? IS NULL OR site_id = ?)
                        AND NOT EXISTS (SELECT 1 FROM put_off f WHERE f.item_id = proposal.item_id AND f.site_id = proposal.site_id AND f.until_day > ?)) due,
                    (SELECT COUNT(*) FROM purchase_order WHERE state IN ('draft', 'awaiting-approval', 'approved', ".Orders::openStates().')) orders,
                    (SELECT COUNT(*) FROM purchase_order WHERE state IN ('.Orders::openStates().') AND COALESCE(promised_on, wanted_on) <= ?) dock,
                    (SELECT COUNT(*) FROM quote_round WHERE sent_at IS NOT NULL AND settled_at IS NULL) quotes',
            [$site, $site, $this->clock->now()->format('Y-m-d'), $this->clock->now()->format('Y-m-d')],
        );

        $today = count($this->today->entries($this->site()));

        return [
            ['route' => 'today', 'name' => 'Today', 'key' => 't', 'count' => $today, 'alarm' => $today > 0],
            ['route' => 'reorder', 'name' => 'Reorder', 'key' => 'r', 'count' => $waiting['due'], 'alarm' => false],
            ['route' => 'compare', 'name' => 'Compare', 'key' => 'c', 'count' => $waiting['quotes'], 'alarm' => false],
            ['route' => 'orders', 'name' => 'Orders', 'key' => 'o', 'count' => $waiting['orders'], 'alarm' => false],
            ['route' => 'dock', 'name' => 'Dock', 'key' => 'd', 'count' => $waiting['dock'], 'alarm' => false],
            ['route' => 'stock', 'name' => 'Stock', 'key' => 's', 'count' => null, 'alarm' => false],
            ['route' => 'suppliers', 'name' => 'Suppliers', 'key' => 'u', 'count' => null, 'alarm' => false],
            ['route' => 'items', 'name' => 'Items', 'key' => 'i', 'count' => null, 'alarm' => false],
        ];
    }

    /** The site being looked at; null for all. */
    public function site(): ?Site
    {
        $request = $this->requests->getCurrentRequest();
        $id = null !== $request && $request->hasSession() ? $request->getSession()->get(self::SITE) : null;

        return is_int($id) ? $this->sites->find($id) : null;
    }

    public function lookAt(?Site $site): void
    {
        $this->requests->getSession()->set(self::SITE, $site?->id);
    }

    /** @return list<Site> */
    public function sites(): array
    {
        return $this->sites->all();
    }
}
