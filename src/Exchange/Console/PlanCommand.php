<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;
use Symfony\Component\Messenger\Worker;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Work\Planning\RunPlanning;

#[AsCommand('planning:run', 'Calculates what to buy, over all items and sites, and helps the workers with it.')]
final class PlanCommand extends Command
{
    /** Seconds. */
    private const LOOK_AGAIN = 0.1;

    public function __construct(
        private readonly RunPlanning $planning,
        private readonly Proposals $proposals,
        private readonly MessageBusInterface $bus,
        private readonly EventDispatcherInterface $events,
        private readonly ClockInterface $clock,
        #[Autowire(service: 'messenger.transport.planning')] private readonly TransportInterface $queue,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('if-none', null, InputOption::VALUE_NONE, 'Do nothing when there has been a run already')
            ->addOption(
                'cover',
                null,
                InputOption::VALUE_REQUIRED,
                'Days to cover; without it every item follows its policy',
            )
            ->addOption(
                'leave',
                null,
                InputOption::VALUE_NONE,
                'Leave it to the workers and only wait for them, as the page does',
            )
            ->addOption(
                'afresh',
                null,
                InputOption::VALUE_NONE,
                'Hold every contest of forecasts anew, also where nothing has changed',
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $cover = $input->getOption('cover');
        if (null !== $cover && (!is_string($cover) || 1 !== preg_match('/^[1-9]\d{0,2}$/', $cover))) {
            $output->writeln('<error>--cover takes a number of days from 1 to 999.</error>');

            return Command::INVALID;
        }
        if (true === $input->getOption('if-none') && null !== $this->proposals->lastRun()) {
            return Command::SUCCESS;
        }
        $start = microtime(true);
        $options =
            null === $cover ? PlanningOptions::usual() : PlanningOptions::of(PlanningOptions::COVER, (float) $cover);
        $run = $this->planning->begin($options, true === $input->getOption('afresh'))->id;
        if (true !== $input->getOption('leave')) {
            $this->help($run);
        }
        for (; $this->proposals->isRunning($run); $this->clock->sleep(self::LOOK_AGAIN)) {
        }
        $done = $this->proposals->run($run);
        if (null === $done || !$done->isDone()) {
            $output->writeln(
                sprintf('<error>Planning stopped: %s</error>', $done?->message() ?? 'overtaken by a newer run'),
            );

            return Command::FAILURE;
        }
        $output->writeln(sprintf('%d items at sites planned in %.2f s.', $done->itemSites(), microtime(true) - $start));

        return Command::SUCCESS;
    }

    /** Works at the queue of planning until the run is through. */
    private function help(int $run): void
    {
        if (!$this->proposals->isRunning($run)) {
            return;
        }
        $enough = function (WorkerRunningEvent $event) use ($run): void {
            if (!$this->proposals->isRunning($run)) {
                $event->getWorker()->stop();
            }
        };
        $this->events->addListener(WorkerRunningEvent::class, $enough);
        (new Worker(['planning' => $this->queue], $this->bus, $this->events))->run(['sleep' => 50_000]);
        $this->events->removeListener(WorkerRunningEvent::class, $enough);
    }
}
