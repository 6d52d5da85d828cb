<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** All that is known about one item at one site before it is planned. */
final readonly class ItemSite
{
    public function __construct(
        public ItemFacts $item,
        public int $site,
        public DemandRecord $record,
        public StockNow $stock,
        public Steering $steering = new Steering(),
    ) {
    }

    public function key(): string
    {
        return $this->item->id.':'.$this->site;
    }
}
