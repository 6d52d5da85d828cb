<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Attack;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Core\VisitLength;
use TallBarrel\Desk\SignIn\Welcome;
use TallBarrel\Store\Person\Person;
use TallBarrel\Tests\Desk\DeskTestCase;

/** Ways in that stood open once. */
final class DoorsTest extends DeskTestCase
{
    /** @param array<string, string> $headers */
    private function trySignIn(string $email, string $password, array $headers = []): int
    {
        $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
        $this->browser->request(
            'POST',
            '/sign-in',
            ['email' => $email, 'password' => $password, '_token' => $token],
            [],
            $headers + ['REMOTE_ADDR' => '192.0.2.7'],
        );

        return $this->browser->getResponse()->getStatusCode();
    }

    public function testWhoIsNotSignedInHasNoSession(): void
    {
        foreach (['/', '/orders?state=all', '/sign-in', '/forgotten', '/order/'.str_repeat('a', 30)] as $path) {
            $this->see($path);
            self::assertSame([], $this->browser->getResponse()->headers->getCookies(), $path);
        }
        self::assertSame(422, $this->trySignIn('mara@larkmoor.example', 'wrong'));
        self::assertSame([], $this->browser->getResponse()->headers->getCookies());
    }

    public function testAFormOfAStrangerComesFromOurOwnPage(): void
    {
        foreach (
            [
                ['HTTP_SEC_FETCH_SITE' => 'cross-site'],
                ['HTTP_REFERER' => 'https://elsewhere.example/'],
                ['HTTP_ORIGIN' => 'null', 'HTTP_REFERER' => ''],
            ] as $headers
        ) {
            self::assertSame(403, $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey', $headers));
        }
        self::assertSame(302, $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function waysOn(): iterable
    {
        yield 'a page of ours' => ['/orders?state=all', '/orders?state=all'];
        yield 'another site' => ['//evil.example/', ''];
        yield 'another site, written oddly' => ['/\\evil.example/', ''];
        yield 'an address' => ['https://evil.example/', ''];
        yield 'a line more' => ["/orders\r\nSet-Cookie: a=b", ''];
    }

    #[DataProvider('waysOn')]
    public function testAfterSigningInNobodyIsSentElsewhere(string $to, string $leads): void
    {
        self::assertSame($leads, Welcome::wanted(Request::create('/sign-in', 'GET', ['to' => $to])));
    }

    public function testAfterSigningInOneIsWhereOneWanted(): void
    {
        $this->see('/orders?state=all');
        $page = $this->browser->followRedirect();
        self::assertSame('/sign-in?to=/orders?state%3Dall', $page->filter('form')->attr('action'));
        $this->browser->submit($page->selectButton('Sign in')->form([
            'email' => 'mara@larkmoor.example', 'password' => 'larkmoor-honey',
        ]));
        self::assertResponseRedirects('/orders?state=all');
    }

    public function testWhoGuessesWaitsHoweverTheAddressIsSpelled(): void
    {
        foreach (['mara', 'Mara', ' mara', 'MARA', 'mara'] as $name) {
            self::assertSame(422, $this->trySignIn($name.'@larkmoor.example', 'wrong'));
        }
        self::assertSame(429, $this->trySignIn('mara@larkmoor.example ', 'larkmoor-honey'));
        self::assertResponseHeaderSame('Retry-After', '300');
        self::assertSame(422, $this->trySignIn('mára@larkmoor.example', 'larkmoor-honey'), 'and is somebody else');
    }

    public function testGuessingFromAPlaceDoesNotLockOutWhoWorksThere(): void
    {
        self::assertSame(302, $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey'));
        $here = $this->browser->getCookieJar()->get('last_here');
        self::assertNotNull($here);
        $this->browser->getCookieJar()->clear();
        for ($try = 1; $try <= 25; ++$try) {
            self::assertSame(422, $this->trySignIn(sprintf('guess%d@larkmoor.example', $try), 'wrong'));
        }
        self::assertSame(429, $this->trySignIn('tam@larkmoor.example', 'larkmoor-honey'), 'one more from there');
        $this->browser->getCookieJar()->set($here);
        self::assertSame(302, $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey'), 'who was here before');
    }

    public function testALinkIsNotGuessed(): void
    {
        for ($try = 1; $try <= 20; ++$try) {
            $page = 0 === $try % 2 ? 'order' : 'quote';
            $this->see(sprintf('/%s/%s', $page, substr(hash('sha256', (string) $try), 0, 40)));
            self::assertResponseStatusCodeSame(404);
        }
        $this->see('/order/'.str_repeat('f', 40));
        self::assertResponseStatusCodeSame(429);
        self::assertGreaterThan(0, (int) $this->browser->getResponse()->headers->get('Retry-After'));
        $this->see('/password/'.str_repeat('f', 40));
        self::assertResponseStatusCodeSame(429);
    }

    public function testAVisitEndsWhereNothingIsDoneAndAfterAWhile(): void
    {
        $length = VisitLength::of(30, 12);
        $begun = new \DateTimeImmutable('2026-11-23 08:00:00');
        foreach (
            [
                ['08:00', '08:30', false],
                ['08:00', '08:31', true],
                ['19:50', '20:00', false],
                ['19:50', '20:01', true],
            ] as [$seen, $now, $over]
        ) {
            self::assertSame($over, $length->isOver(
                $begun,
                new \DateTimeImmutable('2026-11-23 '.$seen),
                new \DateTimeImmutable('2026-11-23 '.$now),
            ), $now);
        }
        self::assertSame(302, $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey'));
        $this->see('/orders');
        self::assertResponseIsSuccessful();
        $this->connection()->executeStatement("UPDATE visit SET seen_at = '2026-11-23 06:29:00'");
        $this->entities()->clear();
        $this->see('/orders');
        $this->mustSignIn();
    }

    public function testAnOwnerSaysHowLongPeopleStay(): void
    {
        $this->as('rowan');
        $form = $this->see('/settings/rights')->selectButton('Save')->form(['idle' => '29', 'most' => '8']);
        $this->browser->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('29 minutes: say 30 to 1,440.', $this->text());
        $this->browser->submit($form, ['idle' => '45', 'most' => '8']);
        self::assertResponseRedirects('/settings/rights');
        self::assertSame(45.0, $this->number('SELECT idle_minutes FROM business'));
        self::assertStringContainsString('was 240 and 12', (string) json_encode($this->connection()->fetchFirstColumn(
            "SELECT words FROM audit_entry WHERE subject = 'rights'",
        )));
    }

    public function testNothingInASessionOpensAnything(): void
    {
        $mara = $this->entities()->getRepository(Person::class)->findOneBy(['email' => 'mara@larkmoor.example']);
        self::assertNotNull($mara);
        $mara->useCodes('JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP');
        $kept = serialize($mara);
        self::assertStringNotContainsString($mara->getPassword(), $kept);
        self::assertStringNotContainsString('JBSWY3DP', $kept);
        $back = unserialize($kept);
        self::assertInstanceOf(Person::class, $back);
        self::assertSame(hash('crc32c', $mara->getPassword()), $back->getPassword());
    }

    public function testAForeignHostIsNotAnsweredAndTlsIsKept(): void
    {
        $this->browser->request('GET', '/sign-in', [], [], ['HTTP_HOST' => 'evil.example']);
        self::assertResponseStatusCodeSame(400);
        self::assertStringNotContainsString('evil.example', (string) $this->browser->getResponse()->getContent());
        $this->see('/sign-in');
        self::assertFalse($this->browser->getResponse()->headers->has('Strict-Transport-Security'));
        $this->browser->request('GET', 'https://localhost/sign-in');
        self::assertResponseHeaderSame('Strict-Transport-Security', 'max-age=31536000');
        $this->trySignIn('mara@larkmoor.example', 'larkmoor-honey', ['HTTPS' => 'on']);
        $cookies = array_filter(
            $this->browser->getResponse()->headers->getCookies(),
            static fn (Cookie $one): bool => 'last_here' === $one->getName(),
        );
        self::assertCount(1, $cookies);
        foreach ($cookies as $cookie) {
            self::assertTrue($cookie->isSecure() && $cookie->isHttpOnly());
        }
    }

    public function testALinkThatIsWithdrawnLeadsNowhereAndAnotherOrdersLinkDoesNotServe(): void
    {
        $token = fn (): string => (string) json_encode($this->connection()->fetchOne(
            "SELECT token FROM purchase_order WHERE number = 'PO-1080'",
        ));
        $old = trim($token(), '"');
        $this->see('/order/'.$old);
        self::assertResponseIsSuccessful();
        self::assertResponseHeaderSame('Referrer-Policy', 'no-referrer');
        $this->see('/quote/'.$old);
        self::assertResponseStatusCodeSame(404, 'for its document only');
        $this->as('tam');
        $this->post('/orders/PO-1080/link');
        self::assertResponseStatusCodeSame(403);
        self::assertStringNotContainsString($old, $this->see('/orders/PO-1080')->html());
        $this->as('mara');
        $page = $this->see('/orders/PO-1080');
        self::assertStringContainsString($old, $page->html(), 'shown to whoever may send');
        $this->browser->submit($page->selectButton('Withdraw their link')->form());
        self::assertNotSame($old, trim($token(), '"'));
        $this->see('/order/'.$old);
        self::assertResponseStatusCodeSame(404);
    }
}
