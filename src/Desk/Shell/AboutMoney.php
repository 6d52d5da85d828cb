<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

/** A page, or all of a controller, that is about money: nobody sees it who may not see costs. */
#[\Attribute(\Attribute::TARGET_CLASS | \Attribute::TARGET_METHOD)]
final readonly class AboutMoney
{
}
