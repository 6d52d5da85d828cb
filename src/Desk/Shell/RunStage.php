<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

/** A stage of the work in the bar at the top, with what waits there. */
final readonly class RunStage
{
    /** @param string $key the letter that leads there */
    public function __construct(
        public string $route,
        public string $name,
        public string $key,
        public ?int $count = null,
        public bool $alarm = false,
    ) {
    }
}
