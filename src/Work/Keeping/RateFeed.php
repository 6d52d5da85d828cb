<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** Where exchange rates come from every day. */
interface RateFeed
{
    public function name(): string;

    /**
     * @return array<string, array<string, string>> how many of a currency one of the home currency buys, by day (Y-m-d)
     *      and currency
     */
    public function daily(\DateTimeImmutable $today): array;
}
