<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\Proposal;

/**
 * What a planning run found for one item at one site, about to be saved.
 *
 * @phpstan-import-type Facts from SavedProposal
 */
final readonly class Finding
{
    /**
     * @param string                                     $packs    what to buy, after what other sites can give
     * @param array{value: string, home: string, weight: float} $worth    of these packs: supplier's currency, home currency, kilograms
     * @param string                                     $class    such as "A-smooth"
     * @param list<string>                               $odd      what a person should look at twice
     * @param list<array{site: int, units: float}>       $moves    from other sites
     * @param int|null                                   $outInDays   days until nothing is left, if before the next arrival
     * @param float                                      $salesAtRisk sales missed until then, home currency
     * @param float|null                                 $leaning     money a week a leaning forecast goes astray
     * @param Facts                                      $facts
     */
    public function __construct(
        public ItemSite $place,
        public ?int $offer,
        public Proposal $proposal,
        public Forecast $forecast,
        public string $forecastKey,
        public string $packs,
        public array $worth,
        public string $class,
        public string $stage,
        public string $policy,
        public bool $listed,
        public bool $chosen,
        public array $odd,
        public array $moves,
        public ?int $outInDays,
        public float $salesAtRisk,
        public ?float $leaning,
        public array $facts,
    ) {
    }
}
