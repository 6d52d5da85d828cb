<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Replenish\Ways;

final readonly class SiteWays
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function all(): Ways
    {
        $agreed = [];
        foreach ($this->entities->getRepository(SiteWay::class)->findAll() as $way) {
            $agreed[$way->source->id][$way->target->id] = $way->way();
        }

        return new Ways($agreed);
    }

    public function find(Site $from, Site $to): ?SiteWay
    {
        return $this->entities->find(SiteWay::class, ['source' => $from->id, 'target' => $to->id]);
    }
}
