<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use TallBarrel\Core\Replenish\SupplierOrder;

/** What one supplier's order lacks, and what to do about it. */
final readonly class FillUpAdvice
{
    public function __construct(public Threshold $threshold, public SupplierOrder $order)
    {
    }
}
