<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** An open order that comes too late, and the day by which it would be in time. */
final readonly class BringForward
{
    public function __construct(public string $order, public \DateTimeImmutable $by, public \DateTimeImmutable $due)
    {
    }
}
