<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mailer\Messenger\SendEmailMessage;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Stamp\ReceivedStamp;
use Symfony\Component\Messenger\Transport\TransportInterface;
use Symfony\Component\Mime\Email;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Exchange\Csv\OldUploads;
use TallBarrel\Exchange\Queue\GivenUp;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Tests\AnotherConnection;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Keeping\ImportToApply;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendOrder;
use TallBarrel\Work\Ordering\SentLetters;
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

    public function testARunNobodyIsAtWorkOnAnyMoreIsClosedWithinAMinute(): void
    {
        self::take('planning');
        $proposals = self::get(Proposals::class);
        $run = self::get(RunPlanning::class)->begin(PlanningOptions::usual());
        $now = static fn (int $seconds): \DateTimeImmutable => $run->at()->modify(sprintf('+%d seconds', $seconds));
        self::assertSame(0, $proposals->closeBroken($now(3600)), 'its parts wait for a worker');
        $parts = self::take('planning');
        self::handle($parts[0]->getMessage());
        self::assertGreaterThan(0, self::number('SELECT COUNT(*) FROM staged_proposal'));
        self::assertSame(0, $proposals->closeBroken($now(59)));
        self::assertSame(1, $proposals->closeBroken($now(61)));
        $closed = $proposals->run($run->id);
        self::assertSame([false, 'It broke off. Calculate again.'], [$closed?->isRunning(), $closed?->message()]);
        self::assertSame(0, self::number('SELECT COUNT(*) FROM staged_proposal'));
        self::assertSame(0, self::number('SELECT COUNT(*) FROM staged_part'));
    }

    /** A worker looks for leftovers every few seconds, also while another puts a run in place. */
    public function testALookForLeftoversWaitsForNobody(): void
    {
        $other = AnotherConnection::to($_SERVER['DATABASE_URL']);
        $other->beginTransaction();
        $other->exec('INSERT INTO staged_part (run_id, number) VALUES (2147483647, 1)');
        self::connection()->executeStatement('SET SESSION innodb_lock_wait_timeout = 1');
        try {
            self::assertSame(0, self::get(Proposals::class)->closeBroken(self::now()));
        } finally {
            $other->rollBack();
            self::connection()->executeStatement('SET SESSION innodb_lock_wait_timeout = DEFAULT');
        }
    }

    public function testWhatWasGivenUpIsClosedAndNeverSaysWhatTheDatabaseWasAsked(): void
    {
        $at = new \DateTimeImmutable('2026-11-23');
        $run = new ImportRun('sales', 'mine.csv', '/nowhere', self::person('mara'), $at);
        $run->checked(1, 0, [], [], '.');
        $run->start();
        self::entities()->persist($run);
        self::entities()->flush();
        $given = self::get(GivenUp::class);
        $error = new \RuntimeException('while applying', 0, new \PDOException('SQLSTATE[HY000] INSERT INTO sales_day'));
        $failed = new WorkerMessageFailedEvent(new Envelope(new ImportToApply($run->id)), 'work', $error);
        $failed->setForRetry();
        $given->note($failed);
        $state = self::connection()->fetchOne('SELECT state FROM import_run WHERE id = ?', [$run->id]);
        self::assertSame('applying', $state);
        $given->note(new WorkerMessageFailedEvent(new Envelope(new ImportToApply($run->id)), 'work', $error));
        $row = self::connection()->fetchAssociative('SELECT state, message FROM import_run WHERE id = ?', [$run->id]);
        self::assertIsArray($row);
        self::assertSame('failed', $row['state']);
        self::assertIsString($row['message']);
        self::assertStringContainsString('The database did not take it', $row['message']);
        self::assertStringNotContainsString('INSERT', $row['message']);
    }

    /** A worker that dies after what it applied was written finds it done when it takes it up again. */
    public function testAFileThatIsTakenUpAgainIsAppliedOnce(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'csv');
        file_put_contents($file, "item,site,day,quantity\nJAR-340R,DEPOT,2020-01-01,5\n");
        $run = self::get(Imports::class)->check('sales', $file, 'mine.csv', self::person('mara'));
        unlink($file);
        self::take('work');
        self::get(Imports::class)->askToApply($run);
        $message = self::take('work')[0]->getMessage();
        self::assertInstanceOf(ImportToApply::class, $message);
        $sold = "SELECT quantity FROM sales_day WHERE day = '2020-01-01'";
        self::handle($message);
        $state = self::connection()->fetchAssociative('SELECT state, message FROM import_run WHERE id = ?', [$run->id]);
        self::assertSame('applied', $state['state'] ?? '', json_encode([$state, $run->problems()]) ?: '');
        self::assertSame(5, self::number($sold));
        self::connection()->executeStatement("UPDATE sales_day SET quantity = 7 WHERE day = '2020-01-01'");
        self::handle($message);
        self::assertSame(7, self::number($sold));
    }

    public function testAFileNobodySaidYesToGoesAfterADay(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'csv');
        file_put_contents($file, "item,site,day,quantity\nJAR-340R,DEPOT,2020-01-01,5\n");
        $run = self::get(Imports::class)->check('sales', $file, 'mine.csv', self::person('mara'));
        unlink($file);
        self::assertFileExists($run->path);
        touch($run->path, $run->at()->getTimestamp());
        $uploads = self::get(OldUploads::class);
        $uploads->sweep($run->at()->modify('+23 hours'));
        self::assertFileExists($run->path);
        $uploads->sweep($run->at()->modify('+25 hours'));
        self::assertFileDoesNotExist($run->path);
        self::assertSame('failed', self::entities()->find(ImportRun::class, $run->id)?->state());
    }

    /** A worker that dies after the mail server took a letter sends it again; it is there once. */
    public function testALetterThatIsSentAgainIsThereOnce(): void
    {
        self::take('work');
        $letter = static fn (): Email => (new Email())
            ->from('we@larkmoor.example')->to('they@vetrasol.example')->subject('Once')->text('!');
        self::get(MailerInterface::class)->send($letter());
        $message = self::take('work')[0]->getMessage();
        self::assertInstanceOf(SendEmailMessage::class, $message);
        $letters = static fn (): int => count(array_filter(
            self::get(SentLetters::class)->letters(),
            static fn (array $one): bool => 'Once' === $one['subject'],
        ));
        $before = $letters();
        self::handle($message);
        self::assertSame($before + 1, $letters());
        self::handle($message);
        self::assertSame($before + 1, $letters());
        self::get(MailerInterface::class)->send($letter());
        self::handle(self::take('work')[0]->getMessage());
        self::assertSame($before + 2, $letters(), 'another of the same words');
    }
}
