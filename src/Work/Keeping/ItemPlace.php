<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** That a site stocks an item, and in which bin it is put. */
final readonly class ItemPlace
{
    public function __construct(public int $site, public ?int $bin)
    {
    }
}
