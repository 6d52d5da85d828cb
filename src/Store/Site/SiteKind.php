<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

/** What a site is for. */
enum SiteKind: string
{
    case Depot = 'depot';
    case Shop = 'shop';
}
