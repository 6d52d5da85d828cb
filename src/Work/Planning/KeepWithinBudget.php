<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Replenish\BudgetCut;
use TallBarrel\Core\Replenish\BudgetLimit;
use TallBarrel\Core\Replenish\BudgetLine;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Planning\Board;

/** Keeps what is chosen within the month's budget, and says what it left out. */
final readonly class KeepWithinBudget
{
    public function __construct(
        private Board $board,
        private Budgets $budgets,
        private CurrentBusiness $business,
        private Connection $connection,
        private ClockInterface $clock,
    ) {
    }

    public function cut(): void
    {
        $now = $this->clock->now();
        $limited = $this->budgets->limited($now);
        if ([] === $limited) {
            return;
        }
        $lines = $values = [];
        foreach ($this->board->chosen() as $row) {
            $lines[$row->id] = new BudgetLine($row->home, $row->atRisk, Reason::from($row->reason));
            $goods = Money::of(number_format($row->home, 2, '.', ''), $this->business->get()->currency);
            foreach ($this->budgets->spentIn($goods, $row->terms, $now, $row->arrival) as $month => $money) {
                $values[$month.' '][$row->id] = $money->amount->toFloat();
                $values[$month.' '.$row->category][$row->id] = $money->amount->toFloat();
            }
        }
        $limits = [];
        foreach ($limited as [$month, $category, $use]) {
            $limits[] = new BudgetLimit(
                $use->left()?->amount->toFloat() ?? INF,
                $values[$month.' '.($category ?? '')] ?? [],
            );
        }
        $choice = BudgetCut::within($lines, $limits);
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
