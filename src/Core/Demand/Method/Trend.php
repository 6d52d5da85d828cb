<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** How a smoothed level goes on: flat, along a straight line, or along one that flattens out. */
enum Trend
{
    case None;
    case Linear;
    case Damped;
}
