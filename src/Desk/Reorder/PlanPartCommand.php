<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Store\Planning\Proposals;

#[AsCommand('planning:part', 'One process’s share of a planning run.', hidden: true)]
final class PlanPartCommand extends Command
{
    public function __construct(private readonly Planner $planner, private readonly Proposals $proposals)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('run', InputArgument::REQUIRED)->addArgument('part', InputArgument::REQUIRED)->addArgument('of', InputArgument::REQUIRED)
            ->addOption('afresh', null, InputOption::VALUE_NONE);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$id, $part, $of] = array_map(static fn (mixed $value): int => is_numeric($value) ? (int) $value : 0, [$input->getArgument('run'), $input->getArgument('part'), $input->getArgument('of')]);
        $run = $this->proposals->run($id);
        if (null === $run || $of < 1 || $part < 0 || $part >= $of) {
            $output->writeln('<error>There is no such part of a run.</error>');

            return Command::INVALID;
        }
        $this->planner->part($run, $part, $of, (bool) $input->getOption('afresh'));
        $output->writeln(sprintf('%.0f MB', memory_get_peak_usage(true) / 1048576));

        return Command::SUCCESS;
    }
}
