<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\WhatMoved;

/**
 * A planning run over all items and sites: begun here as parts in the queue, so that any number of workers share it;
 * whoever finishes the last part puts all of it in place at once.
 */
final readonly class RunPlanning
{
    private const ITEMS_IN_PART = 100;

    public function __construct(
        private PlanningData $data,
        private Proposals $proposals,
        private LookAtItems $look,
        private KeepWithinBudget $budget,
        private WhatMoved $moved,
        private EntityManagerInterface $entities,
        private MessageBusInterface $bus,
    ) {
    }

    public function begin(PlanningOptions $options, bool $afresh = false): PlanningRun
    {
        return $this->entities->wrapInTransaction(function () use ($options, $afresh): PlanningRun {
            $parts = array_chunk($this->data->items(), self::ITEMS_IN_PART);
            $run = $this->proposals->begin(
                $options,
                $this->data->countItemSites(),
                count($parts),
                $this->moved->last(),
            );
            foreach ($parts as $number => $items) {
                $this->bus->dispatch(new PlanPart($run->id, $number, $items, $afresh));
            }
            if ([] === $parts) {
                $this->proposals->settle($run);
            }

            return $run;
        });
    }

    /** Again with what the last run was asked for. */
    public function again(): PlanningRun
    {
        return $this->begin($this->proposals->lastRun()?->options() ?? PlanningOptions::usual());
    }

    /** Looked at twice, a part counts once. */
    #[AsMessageHandler]
    public function part(PlanPart $part): void
    {
        $run = $this->proposals->run($part->run);
        if (null === $run || !$run->isRunning()) {
            return;
        }
        $places = $this->look->look($run, $part->items, $part->afresh);
        if ($this->proposals->finishPart($run, $part->part, $places) > 0) {
            return;
        }
        $this->proposals->settle($run);
        $this->budget->cut();
    }
}
