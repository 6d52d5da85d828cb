<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Console\Style\SymfonyStyle;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Audit\ChainHead;
use TallBarrel\Store\Audit\Seals;

#[AsCommand('audit:verify', 'Proves that nothing of what was noted was changed or taken out since')]
final class VerifyAuditCommand extends Command
{
    public function __construct(private readonly Seals $seals)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this
            ->addOption('known', null, InputOption::VALUE_REQUIRED, 'Where the chain ended once: "1234 0a1b…"')
            ->addOption('head', null, InputOption::VALUE_NONE, 'Say only where it ends now');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $style = new SymfonyStyle($input, $output);
        if (true === $input->getOption('head')) {
            $output->writeln($this->seals->head()->toString());

            return Command::SUCCESS;
        }
        $written = $input->getOption('known');
        try {
            $known = is_string($written) ? ChainHead::read($written) : null;
        } catch (InvalidValue $error) {
            $style->error($error->getMessage());

            return Command::INVALID;
        }
        $faults = $this->seals->faults($known);
        if ([] !== $faults) {
            $style->error($faults);

            return Command::FAILURE;
        }
        $head = $this->seals->head();
        $style->success(sprintf(
            '%d entries are as they were written; the last is %s. %d wait to be sealed.',
            $head->entries,
            $head->hash,
            $this->seals->waiting(),
        ));

        return Command::SUCCESS;
    }
}
