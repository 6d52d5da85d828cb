<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use TallBarrel\Core\Replenish\Policy;

/** A message: a class's past is to be played again under a policy, at each of some levels. */
final readonly class PolicyToPlay
{
    /**
     * @param string      $key    under which the result is kept
     * @param list<float> $levels
     */
    public function __construct(
        public string $key,
        public string $class,
        public Policy $policy,
        public array $levels,
    ) {
    }
}
