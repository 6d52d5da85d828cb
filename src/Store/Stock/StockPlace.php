<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Site\Site;

/** Where some of an item stands: a site, a lot, and what may be done with it. */
final readonly class StockPlace
{
    public function __construct(public Site $site, public StockState $state, public string $lot)
    {
    }

    /** As a form carries it. */
    public function key(): string
    {
        return self::keyOf($this->site->id, $this->state->value, $this->lot);
    }

    public static function keyOf(int $site, string $state, string $lot): string
    {
        return $site.'|'.$state.'|'.$lot;
    }

    /**
     * @param callable(int): (Site|null) $site
     *
     * @throws InvalidValue if it is none
     */
    public static function read(string $key, callable $site): self
    {
        [$id, $state, $lot] = explode('|', $key, 3) + ['', '', ''];
        $there = $site((int) $id);
        $state = StockState::tryFrom($state);
        if (null === $there || null === $state) {
            throw InvalidValue::because('Choose where it stands.');
        }

        return new self($there, $state, $lot);
    }

    public function in(StockState $state): self
    {
        return new self($this->site, $state, $this->lot);
    }

    /** "Depot, lot 12, held". */
    public function words(): string
    {
        return $this->site->name()
            .('' === $this->lot ? '' : ', lot '.$this->lot)
            .(StockState::Available === $this->state ? '' : ', '.$this->state->words());
    }
}
