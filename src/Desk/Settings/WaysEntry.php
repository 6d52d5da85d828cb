<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Replenish\Ways;
use TallBarrel\Store\Site\Site;

/** The ways between the sites as they are typed. */
final class WaysEntry
{
    /** @var array<string, int|null> days by "from-to"; null where nothing goes */
    public array $days = [];
    /** @var array<string, BigDecimal|null> home currency */
    public array $costs = [];
    /** @var array<string, array{Site, Site}> */
    public array $pairs = [];

    /** @param list<Site> $sites */
    public function __construct(array $sites, Ways $ways)
    {
        foreach ($sites as $from) {
            foreach ($sites as $to) {
                if ($from !== $to) {
                    $pair = $from->id.'-'.$to->id;
                    $way = $ways->between($from->id, $to->id);
                    $this->pairs[$pair] = [$from, $to];
                    $this->days[$pair] = $way?->days;
                    $this->costs[$pair] = null === $way ? null : BigDecimal::of((string) $way->cost)->toScale(2);
                }
            }
        }
    }
}
