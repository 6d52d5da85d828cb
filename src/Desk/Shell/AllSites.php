<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

/** A page, or all of a controller, that shows every site: nobody sees it who may see some of them only. */
#[\Attribute(\Attribute::TARGET_CLASS | \Attribute::TARGET_METHOD)]
final readonly class AllSites
{
}
