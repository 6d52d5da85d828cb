<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use TallBarrel\Desk\Shell\Watched;
use TallBarrel\Exchange\ThisMachine;
use TallBarrel\Work\Keeping\Condition;

/** What those see who watch the machine. */
final class WatchedTest extends DeskTestCase
{
    private function asked(string $path, Watched $watched, string $token = ''): ?Response
    {
        $request = Request::create($path);
        $request->headers->set('Authorization', 'Bearer '.$token);
        $event = new RequestEvent(self::createStub(HttpKernelInterface::class), $request,
            HttpKernelInterface::MAIN_REQUEST);
        $watched->answer($event);

        return $event->getResponse();
    }

    private static function condition(?Connection $connection = null): Condition
    {
        $instance = self::getContainer()->getParameter('instance_dir');
        self::assertIsString($instance);
        $own = self::getContainer()->get(Connection::class);
        self::assertInstanceOf(Connection::class, $own);

        return new Condition($connection ?? $own, new MockClock('2026-11-23 09:00 UTC'),
            new ThisMachine($instance));
    }

    public function testAnybodyIsToldWhetherItWorks(): void
    {
        $this->see('/health');
        self::assertResponseIsSuccessful();
        $said = json_decode((string) $this->browser->getResponse()->getContent(), true);
        self::assertIsArray($said);
        self::assertTrue($said['works']);
        self::assertSame([], $said['broken']);
    }

    public function testADatabaseThatDoesNotAnswerIsSaidAtOnce(): void
    {
        $gone = self::createStub(Connection::class);
        $gone->method('fetchAssociative')->willThrowException(new \RuntimeException('gone away'));
        $answer = $this->asked('/health', new Watched(self::condition($gone)));
        self::assertSame(503, $answer?->getStatusCode());
        self::assertStringContainsString('the database does not answer', (string) $answer->getContent());
        self::assertStringNotContainsString('gone away', (string) $answer->getContent());
    }

    public function testWhatWaitsTooLongIsBrokenAndAnOldCopyIsPointedOut(): void
    {
        $fine = ['database' => 1, 'queued' => 3, 'oldest_queued_seconds' => 600, 'stopped' => 0, 'workers' => 1,
            'disk_free_percent' => 10.0, 'backup_age_seconds' => 172_800];
        self::assertSame([[], []], Condition::judge($fine));
        foreach (
            [
                [['oldest_queued_seconds' => 601], ['the queue stands'], []],
                [['disk_free_percent' => 2.9], ['the disk is full'], ['the disk is nearly full']],
                [['disk_free_percent' => 9.9], [], ['the disk is nearly full']],
                [['workers' => 0], [], ['no workers run']],
                [['stopped' => 1], [], ['work was given up']],
                [['backup_age_seconds' => 172_801], [], ['the last copy is old']],
                [['backup_age_seconds' => null], [], ['no copy was ever taken']],
            ] as [$change, $broken, $look]
        ) {
            self::assertSame([$broken, $look], Condition::judge([...$fine, ...$change]));
        }
    }

    public function testFiguresAreForWhoeverHasTheToken(): void
    {
        $condition = self::condition();
        self::assertSame(404, $this->asked('/metrics', new Watched($condition))?->getStatusCode());
        self::assertSame(404, $this->asked('/metrics', new Watched($condition, 'honey'), 'wax')?->getStatusCode());
        self::connection()->executeStatement(
            "INSERT INTO queued_message (body, headers, queue_name, created_at, available_at)
             VALUES ('', '', 'work', '2026-11-23 08:58:00', '2026-11-23 08:58:00')",
        );
        $said = (string) $this->asked('/metrics', new Watched($condition, 'honey'), 'honey')?->getContent();
        self::assertStringContainsString("# TYPE tallbarrel_queued gauge\n", $said);
        self::assertMatchesRegularExpression('/^tallbarrel_oldest_queued_seconds \d{3,}$/m', $said);
        self::assertNull($this->asked('/', new Watched($condition)));
    }
}
