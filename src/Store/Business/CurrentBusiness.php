<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

/** The business whose data this is. */
final readonly class CurrentBusiness
{
    public function __construct(private Premises $premises)
    {
    }

    /** Null before any has been set up. */
    public function find(): ?Business
    {
        return $this->premises->business();
    }

    public function get(): Business
    {
        return $this->find() ??
            throw new \RuntimeException('No business has been set up yet; load the demo or your own data first.');
    }
}
