<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What people have decided about a place. */
final readonly class Steering
{
    /**
     * @param Policy|null $policy  its own, in place of its class's
     * @param float|null  $service its own service level, in place of its policy's
     * @param int|null    $draft   the order it is drafted on
     * @param bool        $putOff  whether it is left for later
     */
    public function __construct(
        public ?Policy $policy = null,
        public ?float $service = null,
        public ?int $draft = null,
        public bool $putOff = false,
    ) {
    }
}
