<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('demo:load', 'Loads Larkmoor Bee Supply, the made-up business of the demo, into an empty database.')]
final class LoadDemoCommand extends Command
{
    public function __construct(private readonly LarkmoorDemo $demo)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('if-empty', null, InputOption::VALUE_NONE, 'Do nothing when there is a business already');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if (!$this->demo->isNeeded()) {
            if (true !== $input->getOption('if-empty')) {
                $output->writeln(
                    '<error>There is a business in this database already; the demo needs an empty one.</error>',
                );

                return Command::FAILURE;
            }

            return Command::SUCCESS;
        }
        $start = microtime(true);
        $output->writeln('Loading the demo');
        ini_set('memory_limit', '1G');
        $this->demo->load();
        $output->writeln(sprintf('Larkmoor Bee Supply is open (%.1f s).', microtime(true) - $start));

        return Command::SUCCESS;
    }
}
