<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Core\OneTimeCode;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Role;
use TallBarrel\Work\Keeping\KeepPerson;
use TallBarrel\Work\Keeping\PersonDetails;

/** Who may come in, and how. */
final class PeopleTest extends DeskTestCase
{
    private const PASSWORD = 'seven green kettles';

    private function person(string $name): Person
    {
        $person = $this->entities()->getRepository(Person::class)->findOneBy(['email' => $name.'@larkmoor.example']);
        self::assertNotNull($person);

        return $person;
    }

    /** @param array<string, string> $changes */
    private function invite(array $changes = []): void
    {
        $this->post('/settings/people', $changes + [
            'name' => 'Nell Marsh',
            'email' => 'nell@larkmoor.example',
            'role' => 'buyer',
            'handles_all' => '1',
        ]);
    }

    /** The link that was sent last; letters of one second are in no order. */
    private function link(): string
    {
        $instance = self::getContainer()->getParameter('instance_dir');
        $last = $this->connection()->fetchOne('SELECT hash FROM person_link ORDER BY id DESC LIMIT 1');
        foreach (glob((is_string($instance) ? $instance : '').'/mail/*.eml') ?: [] as $file) {
            $text = quoted_printable_decode((string) file_get_contents($file));
            $has = 1 === preg_match('#/password/([0-9a-f]{40})#', $text, $found);
            if ($has && hash('sha256', $found[1]) === $last) {
                return $found[0];
            }
        }
        self::fail('No letter has the last link.');
    }

    private function choose(string $link, string $password): void
    {
        $token = $this->see($link)->filter('input[name="_token"]')->attr('value');
        $this->browser->request('POST', $link, ['_token' => $token, 'password' => $password]);
    }

    private function signIn(string $email, string $password): void
    {
        $this->browser->getCookieJar()->clear();
        $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
        $this->browser->request('POST', '/sign-in', ['_token' => $token, 'email' => $email, 'password' => $password]);
    }

    public function testSomebodyIsInvitedChoosesAPasswordAndIsIn(): void
    {
        $this->as('rowan');
        $this->invite();
        self::assertStringContainsString('Nell Marsh is invited', $this->browser->followRedirect()->text());
        $link = $this->link();
        $this->browser->getCookieJar()->clear();
        $this->choose($link, 'short');
        self::assertResponseStatusCodeSame(422);
        $this->choose($link, self::PASSWORD);
        self::assertResponseRedirects();
        $this->signIn('NELL@larkmoor.example', self::PASSWORD);
        self::assertResponseRedirects('/');
        self::assertStringContainsString('Nell Marsh', $this->see('/')->filter('.who')->attr('aria-label') ?? '');
        $this->browser->getCookieJar()->clear();
        $page = $this->see($link);
        self::assertStringContainsString('used already', $page->text());
        self::assertCount(0, $page->filter('input[name="password"]'));
    }

    public function testWhoeverIsInvitedCannotComeInBeforeAndNobodyHasOneAddressTwice(): void
    {
        $this->as('rowan');
        $this->invite();
        $this->invite(['name' => 'Another']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Nell Marsh has this address already', $this->text());
        $this->signIn('nell@larkmoor.example', '');
        self::assertResponseStatusCodeSame(422);
    }

    public function testAForgottenPasswordTellsNobodyWhoIsHere(): void
    {
        $said = [];
        foreach (['nobody@larkmoor.example', 'mára@larkmoor.example', 'mara@larkmoor.example'] as $email) {
            $token = $this->see('/forgotten')->filter('input[name="_token"]')->attr('value');
            $this->browser->request('POST', '/forgotten', ['_token' => $token, 'email' => $email]);
            $said[] = $this->text();
            self::assertSame(
                'mara@larkmoor.example' === $email ? 1.0 : 0.0,
                $this->number('SELECT COUNT(*) FROM person_link'),
            );
        }
        self::assertSame([$said[0]], array_values(array_unique($said)));
        $this->choose($this->link(), self::PASSWORD);
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        self::assertResponseStatusCodeSame(422, 'the old one no longer serves');
    }

    public function testWhoIsBlockedIsOutWithTheNextPage(): void
    {
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        self::assertResponseRedirects('/');
        $mara = $this->browser->getCookieJar()->all();
        $this->browser->getCookieJar()->clear();
        $this->as('rowan');
        $this->post('/settings/people/'.$this->person('mara')->id.'/block');
        self::assertStringContainsString('signed out everywhere', $this->browser->followRedirect()->text());
        $this->browser->getCookieJar()->clear();
        foreach ($mara as $cookie) {
            $this->browser->getCookieJar()->set($cookie);
        }
        $this->see('/reorder');
        $this->mustSignIn();
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        self::assertResponseStatusCodeSame(422);
    }

    public function testTheLastOwnerStays(): void
    {
        $this->as('rowan');
        $rowan = $this->person('rowan');
        $this->post('/settings/people/'.$rowan->id, ['name' => 'Rowan', 'email' => $rowan->email(), 'role' => 'buyer']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('last owner who can sign in', $this->text());
        $this->post('/settings/people/'.$rowan->id.'/block');
        self::assertStringContainsString('You cannot block yourself', $this->browser->followRedirect()->text());
    }

    /** Each of two owners blocks or demotes the other, having looked before either did. */
    public function testOfTwoOwnersWhoBlockEachOtherOneStays(): void
    {
        $this->connection()->executeStatement("UPDATE person SET role = 'owner' WHERE email LIKE 'mara@%'");
        $this->entities()->clear();
        [$rowan, $mara] = [$this->person('rowan'), $this->person('mara')];
        $this->connection()->executeStatement("UPDATE person SET blocked_at = NOW() WHERE email LIKE 'rowan@%'");
        $keep = self::getContainer()->get(KeepPerson::class);
        self::assertInstanceOf(KeepPerson::class, $keep);
        $details = PersonDetails::of($mara, []);
        $details->role = Role::Buyer;
        $problems = new Problems();
        $keep->change($mara, $details, $rowan, $problems);
        self::assertStringContainsString('the last owner', (string) $problems->at('role'));
        $this->expectException(Refused::class);
        $keep->block($mara, $rowan);
    }

    public function testOnlyAnOwnerChangesWhoMayDoWhat(): void
    {
        foreach (['mara', 'tam', 'iris'] as $name) {
            $this->as($name);
            $this->invite();
            self::assertResponseStatusCodeSame(403, $name);
            $this->post('/settings/people/'.$this->person('tam')->id.'/block');
            self::assertResponseStatusCodeSame(403, $name);
        }
    }

    public function testACodeIsAskedForAfterThePasswordAndServesOnce(): void
    {
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        $page = $this->see('/settings/access?show=codes');
        $secret = str_replace(' ', '', $page->filter('.break-all')->text());
        $now = new \DateTimeImmutable('2026-11-23 10:30:00');
        $code = OneTimeCode::at($secret, OneTimeCode::step($now));
        $this->post('/settings/access/codes', ['show' => 'codes', 'secret' => $secret, 'code' => '000000']);
        self::assertResponseStatusCodeSame(422);
        $this->post('/settings/access/codes', ['show' => 'codes', 'secret' => $secret, 'code' => $code]);
        self::assertStringContainsString('asked for after your password', $this->browser->followRedirect()->text());
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        self::assertResponseRedirects('/sign-in/code');
        $this->see('/orders');
        self::assertResponseRedirects('/sign-in/code', null, 'nothing else is shown');
        $next = OneTimeCode::at($secret, OneTimeCode::step($now) + 1);
        foreach ([$code => 422, '123456' => 422, $next => 302] as $typed => $status) {
            $token = $this->see('/sign-in/code')->filter('input[name="_token"]')->attr('value');
            $this->browser->request('POST', '/sign-in/code', ['_token' => $token, 'code' => (string) $typed]);
            self::assertResponseStatusCodeSame($status, (string) $typed);
        }
        $this->see('/orders');
        self::assertResponseIsSuccessful();
    }

    public function testAPasswordIsChangedByWhoKnowsItAndSignsOutEverywhereElse(): void
    {
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        $other = $this->browser->getCookieJar()->all();
        $this->signIn('mara@larkmoor.example', 'larkmoor-honey');
        self::assertStringContainsString('Sign out everywhere else', $this->see('/settings/access')->text());
        $this->post('/settings/access/password', ['old' => 'wrong', 'new' => self::PASSWORD]);
        self::assertStringContainsString('not the password you have now', $this->text());
        $this->post('/settings/access/password', ['old' => 'larkmoor-honey', 'new' => self::PASSWORD]);
        self::assertResponseRedirects();
        $this->browser->getCookieJar()->clear();
        foreach ($other as $cookie) {
            $this->browser->getCookieJar()->set($cookie);
        }
        $this->see('/reorder');
        $this->mustSignIn();
    }

    public function testWhoSeesOneSiteOnlyFindsNothingOfTheOthers(): void
    {
        $site = fn (string $code): int => (int) $this->number('SELECT id FROM site WHERE code = ?', [$code]);
        $tam = $this->person('tam')->id;
        $there = (int) $this->number(
            "SELECT d.id FROM delivery d JOIN site s ON s.id = d.site_id WHERE s.code = 'DEPOT' LIMIT 1",
        );
        $this->as('rowan');
        $this->see('/settings/people/'.$tam);
        $form = $this->browser->getCrawler()->filter('#person')->form()->getPhpValues();
        unset($form['_token']);
        $page = $this->post(
            '/settings/people/'.$tam,
            ['site' => (string) $site('DEPOT'), 'sees' => [(string) $site('FERRY')]] + $form,
        );
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Whoever works at Depot has to see it', $page->text());
        $this->post(
            '/settings/people/'.$tam,
            ['site' => (string) $site('FERRY'), 'sees' => [(string) $site('FERRY')]] + $form,
        );
        self::assertResponseRedirects();

        $this->as('tam');
        $menu = $this->see('/stock')->filter('form[action="/look-at"]')->text();
        self::assertStringContainsString('Ferry', $menu);
        self::assertStringNotContainsString('All sites', $menu);
        self::assertStringNotContainsString('Depot', $menu);
        $this->post('/look-at', ['site' => (string) $site('DEPOT')]);
        self::assertResponseStatusCodeSame(403);
        foreach (
            [
                '/dock/deliveries/'.$there, '/items/JAR-340R/DEPOT/days', '/orders/PO-1081', '/own-data',
                '/orders?site='.$site('DEPOT'),
            ] as $closed
        ) {
            $this->browser->request('GET', $closed);
            self::assertResponseStatusCodeSame(403, $closed);
        }
        $cards = $this->see('/items/JAR-340R')
            ->filter('main .nm')
            ->each(static fn ($one): string => trim($one->text()));
        self::assertContains('Ferry Lane', $cards);
        self::assertNotContains('Depot', $cards);
        self::assertStringNotContainsString('PO-1081', $this->see('/orders')->text());
        self::assertStringNotContainsString('PO-1081', $this->see('/find?q=PO-10')->filter('main')->text());
        self::assertStringNotContainsString('Depot', $this->see('/dock/receipts')->filter('main')->text());

        $this->as('rowan');
        self::assertStringContainsString('PO-1081', $this->see('/find?q=PO-10')->filter('main')->text());
        self::assertStringContainsString('Depot', $this->see('/dock/receipts')->filter('main')->text());
    }

    public function testWhoHandlesOnlyTheirOwnOrdersChangesNoOther(): void
    {
        $this->connection()->executeStatement("UPDATE person SET handles_all = 0 WHERE email LIKE 'mara@%'");
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET buyer_id = (SELECT id FROM person WHERE email LIKE 'rowan@%') WHERE number =
                'PO-1082'",
        );
        $this->as('mara');
        $page = $this->see('/orders/PO-1082');
        self::assertCount(0, $page->filter('button[value="send"]'));
        $this->post('/orders/PO-1082', ['do' => 'save']);
        self::assertResponseStatusCodeSame(403);
        self::assertStringContainsString('an order of Rowan Okell', $this->text());
        $this->connection()->executeStatement("UPDATE person SET handles_all = 1 WHERE email LIKE 'mara@%'");
        $this->entities()->clear();
        self::assertGreaterThan(0, $this->see('/orders/PO-1082')->filter('[form="order"]')->count());
    }

    /** @return array<string, string> who was written to, by what is said */
    private function toldOfChanges(): array
    {
        $instance = self::getContainer()->getParameter('instance_dir');
        $told = [];
        foreach (glob((is_string($instance) ? $instance : '').'/mail/*.eml') ?: [] as $file) {
            $letter = quoted_printable_decode((string) file_get_contents($file));
            if (1 === preg_match('/^Subject: How you sign in/m', $letter)) {
                preg_match('/^To: .*<(.+)>/m', $letter, $to);
                preg_match('/^(.+) at Larkmoor Bee Supply\.\r?$/m', $letter, $what);
                $told[$what[1] ?? ''] = $to[1] ?? '';
            }
        }
        ksort($told);

        return $told;
    }

    public function testWhoeverSignsInIsToldWhereThatIsChanged(): void
    {
        $this->as('mara');
        $this->post('/settings/access/password', ['old' => 'larkmoor-honey', 'new' => self::PASSWORD]);
        $this->as('rowan');
        $mara = $this->person('mara');
        $this->post('/settings/people/'.$mara->id, [
            'name' => $mara->name(), 'email' => 'm.ashdown@larkmoor.example', 'role' => 'buyer', 'handles_all' => '1',
        ]);
        self::assertSame([
            'You sign in as m.ashdown@larkmoor.example now' => 'mara@larkmoor.example',
            'Your password was changed' => 'mara@larkmoor.example',
        ], $this->toldOfChanges(), 'the address they have read so far');
    }
}
