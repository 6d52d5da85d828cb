<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
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
        $this->addOption('if-none', null, InputOption::VALUE_NONE, 'Do nothing when there has been a run already');
        $this->addOption('cover', null, InputOption::VALUE_REQUIRED, 'Days one order should last; without it the economic quantity decides');
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
        $run = $this->planner->run(null === $cover ? null : (int) $cover);
        $output->writeln(sprintf('%d items at sites planned in %.2f s.', $run->itemSites, microtime(true) - $start));

        return Command::SUCCESS;
    }
}
