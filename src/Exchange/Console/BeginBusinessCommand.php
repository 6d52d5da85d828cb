<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Console\Style\SymfonyStyle;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\BeginBusiness;
use TallBarrel\Work\Keeping\FirstFacts;

#[AsCommand('business:begin', 'Opens a business of one’s own: asks what was not given, or does the same as its page.')]
final class BeginBusinessCommand extends Command
{
    private const ASKED = [
        'name' => 'What is the business called?',
        'country' => 'In which country is it (two letters, such as IE)?',
        'currency' => 'Which home currency (three letters, such as EUR)?',
        'mark' => 'How are numbers written, with a . or a , before the decimals?',
        'site' => 'What is the first place called that holds stock?',
        'owner' => 'What are you called, its owner?',
        'email' => 'By which email address do you sign in?',
    ];

    public function __construct(private readonly BeginBusiness $begin)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        foreach (self::ASKED as $name => $words) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $words);
        }
        $this->addOption('password-from', null, InputOption::VALUE_REQUIRED, 'A file whose first line is the password');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $style = new SymfonyStyle($input, $output);
        $facts = new FirstFacts();
        foreach (self::ASKED as $name => $words) {
            $given = $input->getOption($name) ?? ($input->isInteractive() ? $style->ask($words) : '');
            $facts->{$name} = is_scalar($given) ? trim((string) $given) : '';
        }
        $file = $input->getOption('password-from');
        $password = is_string($file) && is_file($file)
            ? strtok((string) file_get_contents($file), "\r\n")
            : ($input->isInteractive() ? $style->askHidden('A password, 12 characters or more:') : '');
        $facts->password = is_string($password) ? $password : '';
        $problems = new Problems();
        try {
            $owner = $this->begin->begin($facts, $problems);
        } catch (Refused $refused) {
            $style->error($refused->getMessage());

            return Command::FAILURE;
        }
        foreach ($problems->all() as $field => $reason) {
            $style->error(sprintf('%s: %s', $field, $reason));
        }
        if (!$owner instanceof Person) {
            return Command::FAILURE;
        }
        $style->success(sprintf('%s is open; sign in as %s.', $facts->name, $owner->email()));

        return Command::SUCCESS;
    }
}
