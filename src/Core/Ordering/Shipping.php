<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\Incoterm;

/** How an order comes: to which place, by whom, on what terms, and for what of ours. */
final readonly class Shipping
{
    private function __construct(
        public string $deliverTo,
        public string $carrier,
        public string $project,
        public string $deliveryTerms,
    ) {
    }

    /**
     * @param string $deliverTo an address that is none of the sites; empty for the sites of the lines
     * @param string $terms     a rule of Incoterms 2020 and a place, one of the usual ones, or empty
     * @param list<string> $usual terms that the supplier is known by
     *
     * @throws InvalidValue
     */
    public static function of(string $deliverTo, string $carrier, string $project, string $terms, array $usual): self
    {
        $terms = trim($terms);
        if ('' !== $terms && !in_array($terms, $usual, true)) {
            [$rule, $place] = Incoterm::read($terms);
            $terms = $rule->value.' '.$place;
        }

        return new self(trim($deliverTo), trim($carrier), trim($project), $terms);
    }
}
