<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Core\InvalidValue;

/** Reads a question from a JSON file and answers in JSON; what is wrong with it ends with a message and exit 1. */
abstract class AnswerFromFile extends Command
{
    /** @var string what the file holds, for the help */
    protected const FILE = 'JSON; see docs/planning.md';

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, static::FILE);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $file = $input->getArgument('file');
            $output->writeln(
                json_encode($this->answer(is_string($file) ? $file : ''), \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT),
                OutputInterface::OUTPUT_RAW,
            );
        } catch (InvalidValue $invalid) {
            ($output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output)->writeln(
                '<error>'.$invalid->getMessage().'</error>',
            );

            return Command::FAILURE;
        }

        return Command::SUCCESS;
    }

    /**
     * @return array<string, mixed>
     *
     * @throws InvalidValue naming the field and its value
     */
    abstract protected function answer(string $file): array;
}
