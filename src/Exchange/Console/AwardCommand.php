<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\Award\Award;
use TallBarrel\Core\Sourcing\Award\Share;
use TallBarrel\Core\Sourcing\Award\Split;
use TallBarrel\Core\Sourcing\Award\Splitting;

#[AsCommand('sourcing:award', 'Shares the lines of a JSON file out among its suppliers so that they cost least')]
final class AwardCommand extends Command
{
    /** Nobody waits at a page here: the proof may take its time. */
    private const STEPS = 3000;

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'what to buy and who asks what; see docs/sourcing.md');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = $input->getArgument('file');
        $file = is_string($file) ? $file : '';
        try {
            $text = is_file($file)
                ? (string) file_get_contents($file)
                : throw InvalidValue::because(sprintf('There is no file “%s”.', $file));
            $asked = AwardFile::read($text);
        } catch (InvalidValue $problem) {
            ($output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output)->writeln(
                $problem->getMessage(),
            );

            return self::FAILURE;
        }
        $basket = $asked->basket;
        $best = $basket->best(self::STEPS);
        if (null !== $asked->handling) {
            $best = Splitting::of($basket, $best, $asked, $asked->handling);
        }
        $alone = [];
        foreach (array_keys($basket->suppliers) as $supplier) {
            $one = $basket->allFrom((string) $supplier);
            $alone[$supplier] = [] === $one->unmet ? self::cost($one) : null;
        }
        $output->writeln(
            json_encode(
                [
                    'assignment' => (object) $best->chosen,
                    'splits' => array_map(
                        static fn (Split $split): array => [
                            'line' => $split->line,
                            'units' => [
                                $split->first => round($split->firstUnits, 3),
                                $split->second => round($split->secondUnits, 3),
                            ],
                            'saves' => round($split->saves, 4),
                        ],
                        $best->splits,
                    ),
                    'unmet' => $best->unmet,
                    'cost' => round($best->cost(), 4),
                    'feasible' => $best->canBeKept(),
                    'proven_best' => $best->isProvenBest(),
                    'gap' => round($best->gap, 4),
                    'orders' => (object) array_map(
                        static fn (Share $share): array => [
                            'lines' => round($share->lineCost, 4),
                            'freight' => round($share->freight, 4),
                            'order_cost' => round($share->orderCost, 4),
                            'short' => $share->short,
                        ],
                        $best->shares,
                    ),
                    'beside' => [
                        'cheapest_line_by_line' => self::cost($basket->cheapestLineByLine()),
                        'all_from' => (object) $alone,
                    ],
                ],
                \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR,
            ),
        );

        return self::SUCCESS;
    }

    /** @return array{cost: float, allowed: bool} */
    private static function cost(Award $award): array
    {
        return ['cost' => round($award->cost(), 4), 'allowed' => $award->isAllowed()];
    }
}
