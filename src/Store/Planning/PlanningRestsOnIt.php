<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

/**
 * What planning rests on. Whoever makes, changes or removes one moves proposals; WhatMoved notes that with the change
 * itself.
 */
interface PlanningRestsOnIt
{
    public function moves(): Moves;
}
