<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\Fan;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\Demand\Outcome;
use TallBarrel\Core\Demand\Score;
use TallBarrel\Core\InvalidValue;

#[AsCommand('demand:forecast', 'Forecasts any series of values, with the contest of methods behind it.')]
final class ForecastCommand extends Command
{
    private const LEVELS = [0.05, 0.1, 0.25, 0.5, 0.75, 0.9, 0.95, 0.99];
    private const LONGEST_HORIZON = 1000;
    private const LONGEST_PERIOD = 1000;

    protected function configure(): void
    {
        $this->addArgument(
            'file',
            InputArgument::REQUIRED,
            'A CSV of one value a line, or JSON {"period": 12, "horizon": 12, "history": [...]}',
        )
            ->addOption('period', null, InputOption::VALUE_REQUIRED, 'Values in one season; 1 for none')
            ->addOption('horizon', null, InputOption::VALUE_REQUIRED, 'How many values ahead')
            ->addOption(
                'method',
                null,
                InputOption::VALUE_REQUIRED,
                'auto, or one of '.implode(', ', array_column(MethodName::cases(), 'value')),
                'auto',
            )
            ->addOption('as-it-is', null, InputOption::VALUE_NONE, 'Take odd single values as they are')
            ->addOption('format', null, InputOption::VALUE_REQUIRED, 'json or table', 'table');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $format = $input->getOption('format');
            if (!in_array($format, ['json', 'table'], true)) {
                throw InvalidValue::because(
                    sprintf('--format is “%s”; expected json or table.', is_scalar($format) ? (string) $format : ''),
                );
            }
            $file = $input->getArgument('file');
            $series = SeriesFile::read(is_string($file) ? $file : '');
            $period = $this->whole($input, 'period', self::LONGEST_PERIOD) ?? ($series->period ?? 1);
            $horizon =
                $this->whole($input, 'horizon', self::LONGEST_HORIZON) ??
                ($series->horizon ?? max(1, min($period, 12)));
            foreach (
                [
                    'period' => [$period, self::LONGEST_PERIOD],
                    'horizon' => [$horizon, self::LONGEST_HORIZON],
                ] as $name => [$value, $most]
            ) {
                if ($value < 1 || $value > $most) {
                    throw InvalidValue::because(sprintf('“%s” is %d; expected 1 to %d.', $name, $value, $most));
                }
            }
            $method = $input->getOption('method');
            $only = 'auto' === $method ? null : MethodName::named(is_string($method) ? $method : '');
            if (MethodName::Combination === $only || MethodName::PooledSeason === $only) {
                throw InvalidValue::because(
                    sprintf('“%s” cannot be asked for on a single series: it needs the others.', $only->value),
                );
            }
            // Demand is never below zero; a series that is goes through the contest lifted above it.
            $lift = min(
                0.0,
                ...array_map(static fn (?float $value): float => $value ?? 0.0, [...$series->history, 0.0]),
            );
            $lifted = array_map(
                static fn (?float $value): ?float => null === $value ? null : $value - 2 * $lift,
                $series->history,
            );
            $outcome = Contest::over(
                true === $input->getOption('as-it-is') ? $lifted : Cleaning::ofSeries($lifted, $period),
                $period,
                $horizon,
                null,
                $only,
            );
            $this->show($output, 'json' === $format, $outcome, 2 * $lift);
        } catch (InvalidValue $invalid) {
            ($output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output)->writeln(
                '<error>'.$invalid->getMessage().'</error>',
            );

            return Command::FAILURE;
        }

        return Command::SUCCESS;
    }

    private function show(OutputInterface $output, bool $json, Outcome $outcome, float $lift): void
    {
        $lower = static fn (array $values): array => array_map(
            static fn (mixed $value): float => round((is_float($value) ? $value : 0.0) + $lift, 6),
            $values,
        );
        $means = $lower($outcome->means);
        $quantiles = array_map($lower, Fan::of($outcome, self::LEVELS));
        $scores = $outcome->scores;
        uasort($scores, static fn (Score $a, Score $b): int => $a->deciding <=> $b->deciding);
        if ($json) {
            $errors = array_map(
                static fn (Score $score): array => [
                    'mase' => round($score->mase, 6),
                    'rmsse' => round($score->rmsse, 6),
                    'bias' => round($score->bias, 6),
                    'tracking_signal' => round($score->tracking, 4),
                ],
                $scores,
            );
            $output->writeln(
                json_encode(
                    [
                        'method' => $outcome->method->value,
                        'combined' => $outcome->parts,
                        'mean' => $means,
                        'quantiles' => $quantiles,
                        'errors' => (object) $errors,
                    ],
                    \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return;
        }
        $output->writeln(
            sprintf(
                '%s%s',
                ucfirst($outcome->method->words()),
                count($outcome->parts) > 1 ? ': '.implode(', ', $outcome->parts) : '',
            ),
        );
        $shown = ['0.1', '0.5', '0.9'];
        $table = (new Table($output))->setHeaders(['ahead', 'mean', ...$shown]);
        foreach ($means as $h => $mean) {
            $table->addRow([
                $h + 1,
                number_format($mean, 2, '.', ''),
                ...array_map(
                    static fn (string $level): string => number_format($quantiles[$level][$h], 2, '.', ''),
                    $shown,
                ),
            ]);
        }
        $table->render();
        $table = (new Table($output))->setHeaders(['method', 'MASE', 'RMSSE', 'bias']);
        foreach ($scores as $name => $score) {
            $table->addRow([
                $name,
                number_format($score->mase, 3),
                number_format($score->rmsse, 3),
                number_format(100 * $score->bias, 1).' %',
            ]);
        }
        $table->render();
    }

    private function whole(InputInterface $input, string $name, int $most): ?int
    {
        $value = $input->getOption($name);
        if (null === $value) {
            return null;
        }
        if (!is_string($value) || 1 !== preg_match('/^\d{1,5}$/', $value) || (int) $value < 1 || (int) $value > $most) {
            throw InvalidValue::because(
                sprintf(
                    '--%s is “%s”; expected a whole number from 1 to %d.',
                    $name,
                    is_scalar($value) ? (string) $value : '',
                    $most,
                ),
            );
        }

        return (int) $value;
    }
}
