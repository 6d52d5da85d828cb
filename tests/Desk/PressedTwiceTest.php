<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Doctrine\ORM\OptimisticLockException;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use TallBarrel\Desk\Shell\PressedOnce;
use TallBarrel\Desk\Shell\RefusalPage;
use TallBarrel\Store\Audit\PressedActs;

/** What a person is told is what is: of a button pressed again, and of what went wrong. */
final class PressedTwiceTest extends DeskTestCase
{
    private const PRESS = '00112233445566778899aabbccddeeff';

    /** @param array<string, string> $changes */
    private function ask(array $changes = []): void
    {
        $this->post('/requisitions', $changes + [
            '_press' => self::PRESS, 'words' => 'Labels for jars', 'quantity' => '10', 'item' => '', 'by' => '',
        ], ['HTTP_REFERER' => 'http://localhost/requisitions']);
    }

    private function asked(): float
    {
        return $this->number("SELECT COUNT(*) FROM requisition WHERE words LIKE 'Labels for %'");
    }

    public function testWhatIsSentAgainIsDoneOnceAndSaidToBeDone(): void
    {
        $this->as('tam');
        $this->ask();
        self::assertResponseRedirects('/requisitions');
        $this->ask();
        self::assertResponseRedirects('/requisitions');
        self::assertStringContainsString('It was not done twice', $this->browser->followRedirect()->text());
        self::assertSame(1.0, $this->asked());
        $this->ask(['words' => 'Labels for pails']);
        self::assertSame(2.0, $this->asked(), 'something else by the same form');
        $this->as('mara');
        $this->ask();
        self::assertSame(3.0, $this->asked(), 'somebody else');
    }

    public function testWhatWasRefusedMayBeSentAgain(): void
    {
        $this->as('tam');
        $this->ask(['quantity' => 'ten']);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM pressed_act'));
        $this->ask(['quantity' => 'ten']);
        self::assertResponseStatusCodeSame(422, 'it is looked at anew');
    }

    public function testWhatARefusedFormHasSavedNeverthelessDoesNotStandInItsWay(): void
    {
        $once = self::getContainer()->get(PressedOnce::class);
        self::assertInstanceOf(PressedOnce::class, $once);
        foreach ([422 => [], 409 => [null], 500 => [null], 302 => ['/orders']] as $status => $left) {
            $this->connection()->executeStatement("REPLACE INTO pressed_act (press, at) VALUES ('this', NOW())");
            $request = Request::create('/requisitions', 'POST');
            $request->attributes->set('_press_key', 'this');
            $response = new Response('', $status, 302 === $status ? ['Location' => '/orders'] : []);
            $kernel = self::createStub(HttpKernelInterface::class);
            $once->after(new ResponseEvent($kernel, $request, HttpKernelInterface::MAIN_REQUEST, $response));
            $found = $this->connection()->fetchFirstColumn('SELECT led_to FROM pressed_act');
            self::assertSame($left, $found, (string) $status);
        }
    }

    /** Whatever a second press of the same is told. */
    public function testWhatLedSomewhereIsDoneAndStays(): void
    {
        $acts = self::getContainer()->get(PressedActs::class);
        self::assertInstanceOf(PressedActs::class, $acts);
        foreach (['led' => '/orders', 'lost' => null] as $key => $ledTo) {
            $this->connection()->executeStatement(
                'INSERT INTO pressed_act (press, at, led_to) VALUES (?, NOW(), ?)',
                [$key, $ledTo],
            );
            $acts->forget($key);
        }
        self::assertSame(['led'], $this->connection()->fetchFirstColumn('SELECT press FROM pressed_act'));
    }

    public function testWhereNoAnswerCameWhatWasDoneIsLeftToBeSeen(): void
    {
        $this->as('tam');
        $this->ask();
        $this->connection()->executeStatement('UPDATE pressed_act SET led_to = NULL');
        $this->ask();
        self::assertResponseRedirects('/requisitions');
        $text = $this->browser->followRedirect()->text();
        self::assertStringContainsString('broke off or is not through yet', $text);
        self::assertSame(1.0, $this->asked());
    }

    public function testAFileThatDidNotArriveIsSaidToBeTooLarge(): void
    {
        $this->as('mara');
        $token = $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
        $this->browser->request('POST', '/own-data/sales', ['_token' => $token, '_press' => self::PRESS], [
            'file' => new UploadedFile('', 'year.csv', null, \UPLOAD_ERR_INI_SIZE, true),
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('The file', $this->text());
    }

    public function testWhoHasNoSessionIsGivenNoneToBeToldThatItWasDone(): void
    {
        for ($press = 0; $press < 2; ++$press) {
            $this->browser->request('POST', '/forgotten', [
                '_token' => 'csrf-token', '_press' => self::PRESS, 'email' => 'mara@larkmoor.example',
            ], [], ['HTTP_SEC_FETCH_SITE' => 'same-origin']);
            self::assertSame([], $this->browser->getResponse()->headers->getCookies());
        }
        self::assertSame(1.0, $this->number('SELECT COUNT(*) FROM person_link'));
    }

    public function testPressesAreForgottenAfterAWeek(): void
    {
        $acts = self::getContainer()->get(PressedActs::class);
        self::assertInstanceOf(PressedActs::class, $acts);
        foreach (['2026-11-16 10:29:00' => 'old', '2026-11-16 10:31:00' => 'new'] as $at => $key) {
            $this->connection()->executeStatement('INSERT INTO pressed_act (press, at) VALUES (?, ?)', [$key, $at]);
        }
        $acts->sweep();
        self::assertSame(['new'], $this->connection()->fetchFirstColumn('SELECT press FROM pressed_act'));
    }

    /** @param \Throwable $error in whatever was asked for */
    private function page(\Throwable $error, string $method = 'POST', ?string $key = null): string
    {
        $page = self::getContainer()->get(RefusalPage::class);
        self::assertInstanceOf(RefusalPage::class, $page);
        $request = Request::create('/orders/PO-1045/send', $method);
        $request->attributes->set('_press_key', $key);
        $event = new ExceptionEvent(
            self::createStub(HttpKernelInterface::class),
            $request,
            HttpKernelInterface::MAIN_REQUEST,
            $error,
        );
        $environment = $_SERVER['APP_ENV'] ?? null;
        $_SERVER['APP_ENV'] = 'prod';
        try {
            $page->show($event);
        } finally {
            $_SERVER['APP_ENV'] = $environment;
        }
        $response = $event->getResponse();
        self::assertNotNull($response);

        return $response->getStatusCode().' '.$response->getContent();
    }

    public function testAnErrorOfOursSaysWhetherItWasDone(): void
    {
        $wrong = new \RuntimeException('SQLSTATE[HY000]: SELECT secret FROM person');
        $this->connection()->executeStatement("INSERT INTO pressed_act (press, at) VALUES ('done', NOW())");
        foreach (
            [
                ['GET', null, 'Nothing was changed'],
                ['POST', 'done', 'was done before that, and is saved'],
                ['POST', 'other', 'Nothing was changed'],
                ['POST', null, 'Whether it was done shows where you came from'],
            ] as [$method, $key, $words]
        ) {
            $page = $this->page($wrong, $method, $key);
            self::assertStringStartsWith('500', $page);
            self::assertStringContainsString($words, $page);
            self::assertStringNotContainsString('SELECT', $page);
            self::assertMatchesRegularExpression('/name <span[^>]*>[0-9a-f]{12}</', $page, 'what to ask about');
        }
    }

    public function testTheSecondOfTwoPressesAtOnceIsAnsweredLikeOneThatComesLater(): void
    {
        $same = new OptimisticLockException('changed', null);
        self::assertStringContainsString('Nothing of yours was saved', $this->page($same, 'POST', 'other'));
        $this->connection()->executeStatement(
            "INSERT INTO pressed_act (press, at, led_to)
             VALUES ('done', NOW(), '/orders/PO-1045'), ('begun', NOW(), NULL)",
        );
        foreach (['done' => '/orders/PO-1045', 'begun' => '/'] as $key => $to) {
            $page = $this->page($same, 'POST', $key);
            self::assertStringStartsWith('303', $page);
            self::assertStringContainsString(sprintf('Redirecting to %s<', $to), $page);
        }
    }

    public function testADatabaseThatIsGoneOrFullIsSaidPlainly(): void
    {
        $full = new \PDOException('SQLSTATE[HY000]: General error: 1114 The table is full');
        $full->errorInfo = ['HY000', 1114, 'The table is full'];
        $gone = new \PDOException('SQLSTATE[HY000] [2002] Connection refused', 2002);
        foreach (
            [
                $gone,
                $full,
                new \LogicException('while a page was drawn', 0, $full),
                new OptimisticLockException('Commit failed', null, $gone),
            ] as $error
        ) {
            $page = $this->page($error);
            self::assertStringStartsWith('503', $page);
            self::assertStringContainsString('The database cannot be reached, or has no room left', $page);
        }
        self::assertStringStartsWith('500', $this->page(new \PDOException('another', 1064)));
    }
}
