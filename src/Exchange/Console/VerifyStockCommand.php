<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Store\Stock\Verification;

#[AsCommand('stock:verify', 'Proves balances against movements, receipts against movements, orders against receipts.')]
final class VerifyStockCommand extends Command
{
    public function __construct(private readonly Verification $verification)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $differences = $this->verification->differences();
        foreach ($differences as $difference) {
            $output->writeln('<error>'.$difference.'</error>');
        }
        $output->writeln(
            [] === $differences
                ? 'All balances, receipts, orders and average costs are proven.'
                : count($differences).' differences.',
        );

        return [] === $differences ? Command::SUCCESS : Command::FAILURE;
    }
}
