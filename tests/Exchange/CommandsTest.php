<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Clock\DatePoint;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;
use Symfony\Component\Mime\Email;
use TallBarrel\Exchange\Console\PlanCommand;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\SentLetters;
use TallBarrel\Work\Planning\KeepWithinBudget;
use TallBarrel\Work\Planning\LookAtItems;
use TallBarrel\Work\Planning\PlanPart;
use TallBarrel\Work\Planning\RunPlanning;

final class CommandsTest extends StoreTestCase
{
    /** @param array<string, mixed> $options */
    private static function command(string $name, array $options = []): CommandTester
    {
        $tester = new CommandTester((new Application(self::$kernel ?? self::bootKernel()))->find($name));
        $tester->execute($options);

        return $tester;
    }

    public function testStockVerifySucceedsOnProvenStockAndFailsNamingTheDifference(): void
    {
        self::bootKernel();
        $proven = self::command('stock:verify');
        self::assertSame(0, $proven->getStatusCode());
        self::assertStringContainsString('are proven', $proven->getDisplay());
        self::connection()->executeStatement(
            "UPDATE stock_balance SET quantity = quantity - 1 WHERE item_id = (SELECT id FROM item
                WHERE code = 'TL-SMK-M') AND site_id = (SELECT id FROM site WHERE code = 'DEPOT')",
        );
        $broken = self::command('stock:verify');
        self::assertSame(1, $broken->getStatusCode());
        self::assertStringContainsString('TL-SMK-M at DEPOT, available stands at', $broken->getDisplay());
    }

    public function testPlanningRunsFromTheShellToo(): void
    {
        self::bootKernel();
        self::assertMatchesRegularExpression(
            '/^\d{3} items at sites planned in/',
            self::command('planning:run', ['--cover' => '14'])->getDisplay(),
        );
        $refused = self::command('planning:run', ['--cover' => 'a fortnight']);
        self::assertSame(2, $refused->getStatusCode());
        self::assertStringContainsString('a number of days', $refused->getDisplay());
        self::assertSame('', self::command('planning:run', ['--if-none' => true])->getDisplay());
    }

    public function testTheShellMayLeavePlanningToTheWorkers(): void
    {
        self::bootKernel();
        // What is queued is kept here; while the shell waits, a worker takes one part of it.
        $queue = new \ArrayObject();
        $bus = new class($queue) implements MessageBusInterface {
            /** @param \ArrayObject<int, object> $queue */
            public function __construct(private readonly \ArrayObject $queue)
            {
            }

            public function dispatch(object $message, array $stamps = []): Envelope
            {
                $this->queue[] = $message;

                return Envelope::wrap($message, $stamps);
            }
        };
        $clock = new class($queue, self::get(RunPlanning::class)) implements ClockInterface {
            public int $worked = 0;

            /** @param \ArrayObject<int, object> $queue */
            public function __construct(private readonly \ArrayObject $queue, private readonly RunPlanning $planning)
            {
            }

            public function sleep(float|int $seconds): void
            {
                $part = $this->queue[$this->worked++] ?? throw new \LogicException('Nothing is left to wait for.');
                assert($part instanceof PlanPart);
                $this->planning->part($part);
            }

            public function now(): DatePoint
            {
                return new DatePoint();
            }

            public function withTimeZone(\DateTimeZone|string $timezone): static
            {
                return $this;
            }
        };
        $transport = self::getContainer()->get('messenger.transport.planning');
        self::assertInstanceOf(TransportInterface::class, $transport);
        $tester = new CommandTester(new PlanCommand(
            new RunPlanning(
                self::get(PlanningData::class),
                self::get(Proposals::class),
                self::get(LookAtItems::class),
                self::get(KeepWithinBudget::class),
                self::get(WhatMoved::class),
                self::get(EntityManagerInterface::class),
                $bus,
            ),
            self::get(Proposals::class),
            $bus,
            self::get(EventDispatcherInterface::class),
            $clock,
            $transport,
        ));
        self::assertSame(0, $tester->execute(['--leave' => true]));
        self::assertStringContainsString('items at sites planned in', $tester->getDisplay());
        self::assertGreaterThan(0, $clock->worked);
        self::assertCount($clock->worked, $queue, 'all of it by the worker');
    }

    public function testTheDemoIsNeverLoadedOverABusiness(): void
    {
        self::bootKernel();
        self::assertSame(0, self::command('demo:load', ['--if-empty' => true])->getStatusCode());
        $refused = self::command('demo:load');
        self::assertSame(1, $refused->getStatusCode());
        self::assertStringContainsString('There is a business in this database already', $refused->getDisplay());
    }

    public function testTheMailboxKeepsWhatWouldHaveGoneOverTheWire(): void
    {
        self::get(MailerInterface::class)->send(
            (new Email())
                ->from('mara@larkmoor.example')
                ->to('kay@testing.example')
                ->cc('mara@larkmoor.example')
                ->subject('Żółć, jars & lids')
                ->text("Dear Kay,\n…")
                ->attach('%PDF-1.4 x', 'PO-1.pdf', 'application/pdf'),
        );
        $letter = array_values(
            array_filter(
                self::get(SentLetters::class)->letters(),
                static fn (array $letter): bool => 'Żółć, jars & lids' === $letter['subject'],
            ),
        )[0];
        self::assertSame(
            [['kay@testing.example'], ['mara@larkmoor.example'], ['PO-1.pdf']],
            [$letter['to'], $letter['copy'], $letter['attachments']],
        );
        $eml = (string) self::get(SentLetters::class)->eml($letter['name']);
        self::assertStringContainsString(base64_encode('%PDF-1.4 x'), $eml);
        self::assertNull(self::get(SentLetters::class)->eml('../environment'));
        self::assertNull(self::get(SentLetters::class)->eml('nothing'));
    }
}
