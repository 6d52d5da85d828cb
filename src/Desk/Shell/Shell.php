<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\RequestStack;
use TallBarrel\Desk\Today\TodayList;
use TallBarrel\Store\Business\KeptFigures;
use TallBarrel\Store\Business\Premises;
use TallBarrel\Store\Business\WaitingCounts;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;

/** What every page carries: the stages of the work with what waits at each, and the site being looked at. */
final class Shell
{
    private const SITE = 'site';

    /** @var list<RunStage>|null read once a request */
    private ?array $stages = null;

    public function __construct(
        private readonly RequestStack $requests,
        private readonly Sites $allSites,
        private readonly Premises $premises,
        private readonly SeenSites $seen,
        private readonly TodayList $today,
        private readonly WaitingCounts $waiting,
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
        $waiting = $this->waiting->at($this->site());
        $today = $waiting->today ?? $this->countToday();

        return [
            new RunStage('today', 'Today', 't', $today, $today > 0),
            new RunStage('reorder', 'Reorder', 'r', $waiting->proposals),
            new RunStage('compare', 'Compare', 'c', $waiting->rounds),
            new RunStage('orders', 'Orders', 'o', $waiting->orders),
            new RunStage('dock', 'Dock', 'd', $waiting->dock),
            new RunStage('stock', 'Stock', 's'),
            new RunStage('settle', 'Settle', 'e', $waiting->settle),
            new RunStage('suppliers', 'Suppliers', 'u'),
            new RunStage('items', 'Items', 'i'),
        ];
    }

    private function countToday(): int
    {
        $today = count($this->today->entries($this->site()));
        $now = $this->clock->now();
        $this->figures->keep(KeptFigures::today($this->site(), $now), $today, $now);

        return $today;
    }

    /** The site being looked at; null for all. Whoever may see some only looks at one of them at a time. */
    public function site(): ?Site
    {
        $request = $this->requests->getCurrentRequest();
        $id = null !== $request && $request->hasSession() ? $request->getSession()->get(self::SITE) : null;
        $site = is_int($id) ? $this->allSites->find($id) : null;
        if ($this->seen->areAll()) {
            return $site;
        }

        return null !== $site && $this->seen->has($site->id) ? $site : $this->seen->sites()[0] ?? null;
    }

    public function seesAll(): bool
    {
        return $this->seen->areAll();
    }

    public function lookAt(?Site $site): void
    {
        $this->requests->getSession()->set(self::SITE, $site?->id);
    }

    /** Whether all that is seen is made up. */
    public function isDemo(): bool
    {
        return true === $this->premises->business()?->isDemo();
    }

    /** @return list<string> that can be chosen on an order */
    public function sentences(): array
    {
        return $this->premises->business()?->sentences() ?? [];
    }

    /** @return list<Site> that may be seen */
    public function sites(): array
    {
        return $this->seen->sites();
    }
}
