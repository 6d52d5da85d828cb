<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Replenish\BudgetCut;
use TallBarrel\Core\Replenish\BudgetLine;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\Board;

/** Keeps what is chosen within the month's budget, and says what it left out. */
final readonly class KeepWithinBudget
{
    public function __construct(
        private Board $board,
        private Spending $spending,
        private Connection $connection,
        private ClockInterface $clock,
    ) {
    }

    public function cut(): void
    {
        $left = $this->spending->budget($this->clock->now())->left();
        if (null === $left) {
            return;
        }
        $lines = [];
        foreach ($this->board->chosen() as $row) {
            $lines[$row->id] = new BudgetLine($row->home, $row->atRisk, Reason::from($row->reason));
        }
        $choice = BudgetCut::of($lines, $left->amount->toFloat());
        $cut = $choice->out;
        $this->connection->executeStatement(
            'UPDATE planning_run SET cut_gap = ? ORDER BY id DESC LIMIT 1',
            [$choice->gap],
        );
        if ([] !== $cut) {
            $this->connection->executeStatement(
                'UPDATE proposal SET cut = 1, chosen = 0 WHERE id IN (?)',
                [$cut],
                [ArrayParameterType::INTEGER],
            );
        }
    }
}
