<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

/** The suppliers' side of the correspondence, where a stand-in plays it. */
interface Correspondents
{
    /**
     * Lets those answer whose time has come.
     *
     * @param bool $all whether the others need not wait
     *
     * @return int how many did
     */
    public function answerDue(bool $all = false): int;
}
