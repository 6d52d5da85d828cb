<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** How a season meets the level: added to it, or multiplied with it. */
enum Season: string
{
    case Additive = 'additive';
    case Multiplicative = 'multiplicative';
}
