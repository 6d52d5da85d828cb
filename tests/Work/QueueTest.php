<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Stamp\ReceivedStamp;
use Symfony\Component\Messenger\Transport\TransportInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendOrder;
use TallBarrel\Work\Planning\PlanAgain;
use TallBarrel\Work\Planning\PlanPart;
use TallBarrel\Work\Planning\RunPlanning;

/** With the queue in the database, as it is outside the tests. */
final class QueueTest extends StoreTestCase
{
    protected function setUp(): void
    {
        $_SERVER['QUEUE_DSN'] = $_ENV['QUEUE_DSN'] = 'doctrine://default';
    }

    protected function tearDown(): void
    {
        $_SERVER['QUEUE_DSN'] = $_ENV['QUEUE_DSN'] = 'sync://';
        parent::tearDown();
    }

    private static function queued(string $queue): int
    {
        return self::number('SELECT COUNT(*) FROM queued_message WHERE queue_name = ?', $queue);
    }

    /** @phpstan-impure */
    private static function number(string $query, int|string ...$values): int
    {
        $number = self::connection()->fetchOne($query, array_values($values));

        return is_numeric($number) ? (int) $number : self::fail('No number: '.$query);
    }

    /** @return list<Envelope> */
    private static function take(string $queue): array
    {
        $transport = self::getContainer()->get('messenger.transport.'.$queue);
        self::assertInstanceOf(TransportInterface::class, $transport);
        $taken = [];
        while ([] !== ($some = [...$transport->get()])) {
            foreach ($some as $envelope) {
                $taken[] = $envelope;
                $transport->ack($envelope);
            }
        }

        return $taken;
    }

    private static function handle(object $message): void
    {
        self::get(MessageBusInterface::class)->dispatch(new Envelope($message, [new ReceivedStamp('planning')]));
    }

    public function testTheLetterIsQueuedIfAndOnlyIfTheOrderWasSent(): void
    {
        $order = self::draft('10.00', 3);
        self::entities()->flush();
        $before = self::queued('work');
        self::get(SendOrder::class)->send(SeenOrder::now($order), self::person('mara'));
        self::assertSame(1, self::queued('work') - $before);
        self::assertSame(
            'sent',
            self::connection()->fetchOne('SELECT state FROM purchase_order WHERE id = ?', [$order->id]),
        );
        $dear = self::draft('9999.00', 30);
        self::entities()->flush();
        try {
            self::get(SendOrder::class)->send(SeenOrder::now($dear), self::person('mara'));
            self::fail('over the limit');
        } catch (Refused) {
            self::assertSame(1, self::queued('work') - $before, 'nothing is mailed of what was not sent');
        }
    }

    public function testWhatGoesOutIsKeptAsItWent(): void
    {
        $order = self::draft('10.00', 3);
        $order->supplier->wantsOrders(true, false);
        self::entities()->flush();
        self::get(SendOrder::class)->send(SeenOrder::now($order), self::person('mara'));
        $kept = self::entities()
            ->getRepository(SentDocument::class)
            ->findBy(['order' => $order], ['id' => 'ASC']);
        self::assertSame(
            ['application/pdf', 'text/csv'],
            array_map(static fn (SentDocument $one): string => $one->mediaType, $kept),
        );
        self::assertStringContainsString($order->number.',1,', $kept[1]->content());
        self::assertSame(hash('sha256', $kept[1]->content()), $kept[1]->sha256);
    }

    public function testARunIsSharedOutAndPutInPlaceByWhoeverFinishesLast(): void
    {
        self::take('planning');
        $run = self::get(RunPlanning::class)->begin(PlanningOptions::usual());
        $parts = array_map(static fn (Envelope $envelope): object => $envelope->getMessage(), self::take('planning'));
        self::assertGreaterThan(1, count($parts));
        self::assertTrue(self::get(Proposals::class)->isRunning($run->id));
        $last = array_pop($parts);
        self::assertNotNull($last);
        foreach ([...$parts, $parts[0]] as $part) {
            self::handle($part);
        }
        self::assertTrue(self::get(Proposals::class)->isRunning($run->id), 'a part looked at twice counts once');
        self::assertNotSame(
            $run->id,
            self::number('SELECT MIN(run_id) FROM proposal'),
            'what was there stays until all is through',
        );
        self::handle($last);
        $done = self::get(Proposals::class)->run($run->id);
        self::assertSame([true, $run->itemSites()], [$done?->isDone(), $done?->done()]);
        self::assertSame([$run->id], self::connection()->fetchFirstColumn('SELECT DISTINCT run_id FROM proposal'));
        self::assertSame(
            0,
            self::number('SELECT COUNT(*) FROM staged_proposal') + self::number('SELECT COUNT(*) FROM staged_part'),
        );
    }

    public function testWhatMovesDuringARunIsPlannedAtOnceForAPersonAndKeptForWhenItIsThrough(): void
    {
        self::take('planning');
        $item = self::number('SELECT MIN(item_id) FROM proposal');
        $run = self::get(RunPlanning::class)->begin(PlanningOptions::usual());
        $parts = self::take('planning');
        self::connection()->executeStatement('DELETE FROM moved_item');
        self::connection()->executeStatement('INSERT INTO moved_item (item_id) VALUES (?)', [$item]);
        self::connection()->executeStatement('UPDATE proposal SET on_hand = -1 WHERE item_id = ?', [$item]);
        self::assertFalse(self::get(PlanAgain::class)->some());
        self::assertSame(
            1,
            self::number('SELECT on_hand = -1 FROM proposal WHERE item_id = ? LIMIT 1', $item),
            'the run comes first',
        );
        self::get(PlanAgain::class)->aHandful();
        self::assertSame(0, self::number('SELECT on_hand = -1 FROM proposal WHERE item_id = ? LIMIT 1', $item));
        self::assertSame(1, self::number('SELECT COUNT(*) FROM moved_item'), 'the run may have read it before');
        foreach ($parts as $part) {
            self::handle($part->getMessage());
        }
        self::assertFalse(self::get(Proposals::class)->isRunning($run->id));
        self::get(PlanAgain::class)->some();
        self::assertSame(0, self::number('SELECT COUNT(*) FROM moved_item'));
    }

    public function testAnOvertakenRunLeavesNothingBehind(): void
    {
        self::take('planning');
        $first = self::get(RunPlanning::class)->begin(PlanningOptions::usual());
        $parts = array_map(static fn (Envelope $envelope): object => $envelope->getMessage(), self::take('planning'));
        self::get(RunPlanning::class)->begin(PlanningOptions::usual());
        foreach ($parts as $part) {
            self::assertInstanceOf(PlanPart::class, $part);
            self::handle($part);
        }
        self::assertSame(0, self::number('SELECT COUNT(*) FROM staged_proposal WHERE run_id = ?', $first->id));
        self::assertSame(0, self::number('SELECT COUNT(*) FROM proposal WHERE run_id = ?', $first->id));
    }
}
