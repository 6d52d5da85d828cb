<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Store\Business\CurrentBusiness;

#[AsCommand('business:whose', 'Says whether there is a business here: none, demo or own.')]
final class WhoseBusinessCommand extends Command
{
    public function __construct(private readonly CurrentBusiness $business)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $business = $this->business->find();
        $output->writeln(null === $business ? 'none' : ($business->isDemo() ? 'demo' : 'own'));

        return Command::SUCCESS;
    }
}
