<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

/** What stands in a bin. */
enum BinKind: string
{
    case Shelf = 'shelf';
    case Dock = 'dock';
    case Inspection = 'inspection';
    case Held = 'held';
}
