<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Store\Stock\CostHistory;

#[AsCommand('stock:costs', 'Works out anew, from the ledger, what stock cost on average on each day.')]
final class KeepCostsCommand extends Command
{
    public function __construct(private readonly CostHistory $costs)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('if-none', null, InputOption::VALUE_NONE, 'only where nothing is kept yet');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if (true !== $input->getOption('if-none') || $this->costs->isEmpty()) {
            $this->costs->fromLedger();
        }

        return Command::SUCCESS;
    }
}
