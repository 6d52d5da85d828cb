<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

/** What became of several orders, by number. */
final readonly class SentTogether
{
    /**
     * @param list<string>          $sent
     * @param list<string>          $waiting for a yes
     * @param array<string, string> $held    with the reason
     */
    public function __construct(public array $sent, public array $waiting, public array $held)
    {
    }
}
