<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Console\Style\SymfonyStyle;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Work\Keeping\TakeDemoAway;

#[AsCommand('demo:remove', 'Takes everything of the made-up business away, to begin one of one’s own.')]
final class RemoveDemoCommand extends Command
{
    public function __construct(private readonly TakeDemoAway $take, private readonly CurrentBusiness $business)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('yes', null, InputOption::VALUE_NONE, 'Do not ask');
        $this->addOption('if-none', null, InputOption::VALUE_NONE, 'Only where there is no business at all');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $style = new SymfonyStyle($input, $output);
        if (true === $input->getOption('if-none') && null !== $this->business->find()) {
            return Command::FAILURE;
        }
        if (true !== $input->getOption('yes') && !$style->confirm('Take away everything of the demo?', false)) {
            return Command::FAILURE;
        }
        try {
            $this->take->take();
        } catch (Refused $refused) {
            $style->error($refused->getMessage());

            return Command::FAILURE;
        }
        $output->writeln('There is no business here any more; the first page begins one.');

        return Command::SUCCESS;
    }
}
