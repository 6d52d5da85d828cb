<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\WhatMoved;

/**
 * The one who reads the notes of what moved and plans it again: a handful at once, many in turns of the worker, all of
 * it by a run of its own. The rest of the board stays as it is.
 */
final readonly class PlanAgain
{
    /** So many items are planned while a person waits for the page. */
    public const HANDFUL = 25;
    private const AT_A_TIME = 100;

    public function __construct(
        private WhatMoved $moved,
        private Proposals $proposals,
        private LookAtItems $look,
        private RunPlanning $run,
    ) {
    }

    /** Plans what moved if it is little; otherwise leaves it to the worker. */
    public function aHandful(): void
    {
        if (!$this->moved->isEverything() && count($this->moved->items(self::HANDFUL + 1)) <= self::HANDFUL) {
            $this->look(true);
        }
    }

    /** @return bool whether there was anything to do, so that there may be more */
    public function some(): bool
    {
        return $this->look(false);
    }

    /** @param bool $waitedFor whether a person waits, and a run under way is no reason to leave it for later */
    private function look(bool $waitedFor): bool
    {
        if (0 === $this->moved->last()) {
            return false;
        }
        $did = false;
        $this->moved->alone(function () use (&$did, $waitedFor): void {
            $did = $this->turn($waitedFor);
        });

        return $did;
    }

    private function turn(bool $waitedFor): bool
    {
        $last = $this->moved->last();
        $board = $this->proposals->lastRun();
        $under = $this->proposals->latestRun();
        if (0 === $last) {
            return false;
        }
        if (null === $board) {
            // Where nothing was ever calculated, the first thing that moves begins it.
            if (null === $under) {
                $this->run->again();
            }

            return false;
        }
        $running = null !== $under && $under->isRunning();
        if ($this->moved->isEverything()) {
            // A run under way is waited for; one that failed waits for a person.
            if (null === $under || PlanningRun::DONE === $under->state()) {
                $this->run->again();
            }

            return false;
        }
        if ($running && !$waitedFor) {
            return false;
        }
        $items = $this->moved->items(self::AT_A_TIME);
        $this->look->look($board, $items);
        $this->proposals->settle($board, $items);
        if ($running) {
            // The run may have read these items before they moved: their notes stay until it is through.
            return false;
        }
        $this->moved->forgetItems($items, $last);

        return true;
    }
}
