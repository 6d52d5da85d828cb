<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;

/** Some of a line, wanted on another day or at another place. */
final readonly class LaterDelivery
{
    /**
     * @param \DateTimeImmutable|null $day  null for the line's
     * @param int|null                $site null for the line's
     */
    public function __construct(public BigDecimal $packs, public ?\DateTimeImmutable $day, public ?int $site)
    {
    }
}
