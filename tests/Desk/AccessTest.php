<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\BrowserKit\Cookie;

final class AccessTest extends DeskTestCase
{
    /** @return iterable<array{string}> */
    public static function pages(): iterable
    {
        foreach (
            [
                '/',
                '/reorder',
                '/orders',
                '/orders?state=settled',
                '/orders/PO-1045',
                '/dock',
                '/stock',
                '/items',
                '/items/JAR-340R',
                '/suppliers',
                '/suppliers/VETRASOL',
                '/mailbox',
                '/settings/budget',
                '/settings/costs',
                '/find?q=jar',
            ] as $page
        ) {
            yield $page => [$page];
        }
    }

    #[DataProvider('pages')]
    public function testEveryPageOpensForWhoeverWorksHereAndForNobodyElse(string $page): void
    {
        $this->see($page);
        $this->mustSignIn();
        foreach (['rowan', 'mara', 'tam', 'iris'] as $name) {
            $this->as($name);
            $this->see($page);
            self::assertResponseIsSuccessful($name.' at '.$page);
            self::assertStringContainsString(
                "script-src 'self'",
                (string) $this->browser->getResponse()->headers->get('Content-Security-Policy'),
            );
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function forbidden(): iterable
    {
        yield 'the stockroom does not draft' => ['tam', '/reorder/draft'];
        yield 'the stockroom does not send' => ['tam', '/orders/PO-1082/send'];
        yield 'the bookkeeper does not calculate' => ['iris', '/reorder/calculate'];
        yield 'the bookkeeper does not receive' => ['iris', '/dock/deliveries'];
        yield 'the bookkeeper does not change suppliers' => ['iris', '/suppliers/VETRASOL'];
        yield 'the buyer sets no budget' => ['mara', '/settings/budget'];
        yield 'the stockroom brings no data' => ['tam', '/own-data/sales'];
    }

    #[DataProvider('forbidden')]
    public function testTheWrongRoleIsRefusedOnTheServer(string $name, string $path): void
    {
        $this->as($name);
        $this->post($path);
        self::assertResponseStatusCodeSame(403);
        self::assertStringContainsString('Your role does not allow this', $this->text());
    }

    public function testABuyerCannotApproveWhatIsOverTheLimit(): void
    {
        $this->as('mara');
        $this->post('/orders/PO-1081/approve', ['version' => '1']);
        $this->browser->followRedirect();
        self::assertStringContainsString('over Mara’s limit', $this->text());
        self::assertSame(
            'awaiting-approval',
            $this->connection()->fetchOne("SELECT state FROM purchase_order WHERE number = 'PO-1081'"),
        );
    }

    public function testWithoutTheSessionsTokenNothingIsChanged(): void
    {
        $this->as('rowan');
        $this->see('/');
        $this->browser->request('POST', '/orders/PO-1082/cancel', ['version' => '1', '_token' => 'stolen']);
        self::assertResponseStatusCodeSame(403);
        self::assertSame(
            'draft',
            $this->connection()->fetchOne("SELECT state FROM purchase_order WHERE number = 'PO-1082'"),
        );
    }

    public function testSigningInTakesTheRightPassword(): void
    {
        $try = function (string $password): void {
            $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
            $this->browser->request(
                'POST',
                '/sign-in',
                ['email' => 'rowan@larkmoor.example', 'password' => $password, '_token' => $token],
                [],
                ['REMOTE_ADDR' => '192.0.2.'.random_int(1, 250)],
            );
        };
        $try('wrong');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('do not belong together', $this->text());
        self::assertSame(
            'rowan@larkmoor.example',
            $this->browser->getCrawler()->filter('input[name="email"]')->attr('value'),
            'the address typed is kept',
        );
        $try('larkmoor-honey');
        $this->browser->followRedirect();
        self::assertStringContainsString('Coming to the dock', $this->text());
    }

    public function testTooManyTriesMustWait(): void
    {
        $address = '198.51.100.'.random_int(1, 250);
        $email = 'nobody-'.bin2hex(random_bytes(4)).'@larkmoor.example';
        for ($try = 1; $try <= 6; ++$try) {
            $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
            $this->browser->request(
                'POST',
                '/sign-in',
                ['email' => $email, 'password' => 'guess '.$try, '_token' => $token],
                [],
                ['REMOTE_ADDR' => $address],
            );
            self::assertStringContainsString($try <= 5 ? 'do not belong together' : 'Too many tries', $this->text());
        }
    }

    /** Signed in by the form, and the session is over. */
    private function wasHere(string $name): void
    {
        $this->signInAs($name);
        $this->browser->getCookieJar()->expire('MOCKSESSID');
    }

    private function signInAs(string $name): void
    {
        $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
        $this->browser->request('POST', '/sign-in', [
            'email' => $name.'@larkmoor.example', 'password' => 'larkmoor-honey', '_token' => $token,
        ]);
    }

    /** @param array<string, string> $headers */
    private function typeOn(array $headers = []): void
    {
        $this->browser->request('POST', '/suppliers/VETRASOL', [
            'name' => 'Vetrasol & Sons',
            'weekdays' => [1 => '1', 4 => '1'],
            'version' => '1',
        ], [], $headers);
        $this->mustSignIn();
    }

    public function testWhatWasTypedSurvivesAnEndedSession(): void
    {
        $this->wasHere('mara');
        $this->typeOn();
        $this->browser->followRedirect();
        self::assertStringContainsString('what you typed is kept', $this->text());
        $this->signInAs('mara');
        $crawler = $this->browser->followRedirect();
        $form = $crawler->selectButton('Save what I typed')->form();
        self::assertSame('Vetrasol & Sons', $form->getValues()['name']);
        self::assertSame('1', $form->getValues()['weekdays[4]']);
        self::assertStringEndsWith('/suppliers/VETRASOL', $form->getUri());
        self::assertStringContainsString('/suppliers/VETRASOL', $crawler->filter('.sheet')->text(), 'where it goes');
        self::assertStringContainsString('version', $crawler->filter('.checks')->text(), 'every field is shown');
    }

    public function testWhatOneTypedIsNotSavedByAnother(): void
    {
        $this->wasHere('mara');
        $this->typeOn();
        $this->signInAs('rowan');
        $this->browser->followRedirect();
        self::assertStringNotContainsString('Carry on where you were', $this->text());
        $this->see('/kept');
        self::assertResponseRedirects('/');
    }

    public function testAnotherSitesFormIsNotKept(): void
    {
        $this->typeOn();
        self::assertStringNotContainsString('what you typed is kept', $this->browser->followRedirect()->text());
        $this->wasHere('mara');
        $this->typeOn(['HTTP_SEC_FETCH_SITE' => 'cross-site']);
        self::assertStringNotContainsString('what you typed is kept', $this->browser->followRedirect()->text());
        $this->browser->getCookieJar()->clear();
        $this->browser->getCookieJar()->set(new Cookie('last_here', '1.'.str_repeat('0', 64)));
        $this->typeOn();
        self::assertStringNotContainsString('what you typed is kept', $this->browser->followRedirect()->text());
    }

    public function testAWrongAddressIsSaidPlainly(): void
    {
        $this->as('iris');
        $this->see('/orders/PO-9999');
        self::assertResponseStatusCodeSame(404);
        self::assertStringContainsString('There is no order PO-9999.', $this->text());
    }
}
