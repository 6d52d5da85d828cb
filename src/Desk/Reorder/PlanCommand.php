<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Store\Planning\PlanningOptions;
use TallBarrel\Store\Planning\Proposals;

#[AsCommand('planning:run', 'Calculates what to buy, over all items and sites.')]
final class PlanCommand extends Command
{
    public function __construct(private readonly Planner $planner, private readonly Proposals $proposals)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('if-none', null, InputOption::VALUE_NONE, 'Do nothing when there has been a run already')
            ->addOption('cover', null, InputOption::VALUE_REQUIRED, 'Days to cover; without it every item follows its policy')
            ->addOption('afresh', null, InputOption::VALUE_NONE, 'Hold every contest of forecasts anew, also where nothing has changed')
            ->addOption('run', null, InputOption::VALUE_REQUIRED, 'Carry out a run that was begun on the desk');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $cover = $input->getOption('cover');
        if (null !== $cover && (!is_string($cover) || 1 !== preg_match('/^[1-9]\d{0,2}$/', $cover))) {
            $output->writeln('<error>--cover takes a number of days from 1 to 999.</error>');

            return Command::INVALID;
        }
        if ($input->getOption('if-none') && null !== $this->proposals->lastRun()) {
            return Command::SUCCESS;
        }
        $start = microtime(true);
        $begun = $input->getOption('run');
        $run = is_numeric($begun) ? $this->proposals->run((int) $begun) : $this->proposals->begin(null === $cover ? PlanningOptions::usual() : PlanningOptions::of(PlanningOptions::COVER, (float) $cover));
        if (null === $run) {
            $output->writeln('<error>There is no such run.</error>');

            return Command::INVALID;
        }
        $run = $this->planner->carryOut($run, (bool) $input->getOption('afresh'));
        $output->writeln(sprintf('%d items at sites planned in %.2f s.', $run->itemSites(), microtime(true) - $start));

        return Command::SUCCESS;
    }
}
