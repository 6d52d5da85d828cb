<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

/** What was changed of a supplier and matters for where goods and money go, until somebody who approves has seen it. */
final readonly class UnseenChange
{
    public function __construct(public string $what, public string $was, public string $is)
    {
    }

    public function words(): string
    {
        return sprintf('%s “%s” now, “%s” before', $this->what, $this->is, $this->was);
    }
}
