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

    /**
     * @param float      $perDay stock units sold or used a day
     * @param float      $held   what there will be without another order, in stock units
     * @param float|null $price  one is sold for, before tax, home currency; null where it is not sold
     * @param float|null $cost   of one, home currency; null where nobody knows, and nothing is said to be lost
     */
    public static function of(float $perDay, float $held, ?float $price, ?float $cost): self
    {
        return new self(
            $perDay,
            $perDay > 0 ? max(0.0, $held) / $perDay : null,
            null === $price || null === $cost ? 0.0 : max(0.0, $price - $cost),
        );
    }

    /** Of a part of what is bought: the rest lasts as long, so that each lasts as long as both together. */
    public function ofPart(float $share): self
    {
        return new self($this->perDay * $share, $this->daysUntilOut, $this->margin);
    }
}
