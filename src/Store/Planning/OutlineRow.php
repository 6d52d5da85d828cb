<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

/** A proposal in outline: enough to group, sort and sum a long list. */
final readonly class OutlineRow
{
    /**
     * @param int  $supplier 0 where nobody sells it
     * @param bool $open     not drafted yet, and somebody sells it
     */
    public function __construct(
        public int $id,
        public int $supplier,
        public string $reason,
        public int $urgency,
        public ?float $cover,
        public string $code,
        public float $home,
        public float $value,
        public float $weight,
        public bool $open,
        public bool $chosen,
        public float $doubt,
        public float $atRisk,
        public bool $cut,
    ) {
    }
}
