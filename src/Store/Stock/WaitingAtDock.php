<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** Goods at a dock that are to be put away. */
final readonly class WaitingAtDock
{
    /**
     * @param float       $units stock units
     * @param string      $bin   where they should go: the item's own, where it lies already, an empty shelf; or none
     * @param string|null $since Y-m-d
     */
    public function __construct(
        public int $item,
        public string $code,
        public string $name,
        public string $unit,
        public int $siteId,
        public string $site,
        public string $lot,
        public float $units,
        public string $bin,
        public ?string $since,
    ) {
    }

    /** As a form carries it. */
    public function key(): string
    {
        return $this->item.'|'.$this->place();
    }

    /** The place of it, as StockPlace reads it. */
    public function place(): string
    {
        return StockPlace::keyOf($this->siteId, StockState::AtDock->value, $this->lot);
    }
}
