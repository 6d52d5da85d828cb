<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Replenish\Way;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Site\SiteWay;
use TallBarrel\Store\Site\SiteWays;

/** How goods get from site to site: how many days it takes and what it costs, or that nothing goes. */
final readonly class SetWays
{
    public function __construct(private EntityManagerInterface $entities, private Sites $sites, private SiteWays $ways)
    {
    }

    /**
     * @param array<string, int|null>        $days     by "from-to"; null where nothing goes
     * @param array<string, BigDecimal|null> $costs    home currency; null for nothing
     * @param Problems                       $problems by "days-from-to" and "cost-from-to"
     */
    public function set(array $days, array $costs, Problems $problems): void
    {
        foreach ($days as $pair => $some) {
            $problems->attempt('days-'.$pair, static fn (): Way => Way::of($some ?? 0, 0.0));
            $cost = $costs[$pair] ?? BigDecimal::zero();
            $problems->attempt('cost-'.$pair, static fn (): Way => Way::of(0, $cost->toFloat()));
        }
        if (!$problems->areNone()) {
            return;
        }
        foreach ($days as $pair => $some) {
            [$from, $to] = array_map($this->site(...), explode('-', $pair));
            $cost = $costs[$pair] ?? BigDecimal::zero();
            $known = $this->ways->find($from, $to);
            if (null === $known) {
                $this->entities->persist(new SiteWay($from, $to, $some, $cost));
            } else {
                $known->change($some, $cost);
            }
        }
        $this->entities->flush();
    }

    private function site(string $id): Site
    {
        return $this->sites->find((int) $id) ?? throw InvalidValue::because('There is no such site.');
    }
}
