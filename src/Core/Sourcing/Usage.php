<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** How an item is used up by the one who buys it. */
final readonly class Usage
{
    /**
     * @param float      $perDay       stock units sold or used a day
     * @param float|null $daysUntilOut until nothing is left if nothing is ordered; null where it never runs out
     * @param float      $margin       lost with each stock unit that cannot be sold, home currency
     */
    public function __construct(public float $perDay, public ?float $daysUntilOut, public float $margin)
    {
    }

    /** Of a part of what is bought: the rest lasts as long, so that each lasts as long as both together. */
    public function ofPart(float $share): self
    {
        return new self($this->perDay * $share, $this->daysUntilOut, $this->margin);
    }
}
