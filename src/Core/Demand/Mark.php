<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/** A week of history that does not look like the others, and what planning takes it for. */
final readonly class Mark
{
    public const BULK = 'one-off bulk sale';
    public const GAP = 'nothing recorded';
    public const LEFT_OUT = 'left out by hand';

    /**
     * @param int        $week  position in the history
     * @param string     $kind  one of the constants
     * @param float|null $taken stock units planning takes it for; null for unknown
     * @param bool       $kept  a person says that the week is right as it is
     */
    public function __construct(
        public int $week,
        public string $kind,
        public float $demand,
        public ?float $taken,
        public bool $kept,
    ) {
    }
}
