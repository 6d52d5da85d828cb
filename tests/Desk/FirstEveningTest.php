<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use TallBarrel\Tests\Face\Pages;
use TallBarrel\Work\Keeping\TakeDemoAway;

/** Begun without a business: what the first page asks, and that every page is there before anything is. */
final class FirstEveningTest extends DeskTestCase
{
    private const FACTS = [
        'name' => 'Whin Hill Crafts',
        'country' => 'DE',
        'currency' => 'EUR',
        'mark' => ',',
        'site' => 'Am Hügel',
        'owner' => 'Anna Lang',
        'email' => 'Anna.Lang@whinhill.example',
        'password' => 'seven green kettles',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $take = self::getContainer()->get(TakeDemoAway::class);
        self::assertInstanceOf(TakeDemoAway::class, $take);
        $take->take();
        $this->entities()->clear();
        $this->browser->disableReboot();
    }

    /** @param array<string, string> $changes */
    private function begin(array $changes = []): Crawler
    {
        $page = $this->see('/begin');
        $token = $page->filter('input[name="_token"]')->attr('value');

        return $this->browser->request('POST', '/begin', ['_token' => $token] + $changes + self::FACTS);
    }

    public function testEveryAddressLeadsToTheFirstPage(): void
    {
        foreach (['/', '/sign-in', '/items/JAR-340R', '/forgotten'] as $path) {
            $this->see($path);
            self::assertResponseRedirects('/begin');
        }
        self::assertStringContainsString('A business of your own', $this->see('/begin')->text());
    }

    public function testItIsOpenAfterOnePageAndItsOwnerIsSignedIn(): void
    {
        $this->begin();
        self::assertResponseRedirects('/still-missing');
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('Whin Hill Crafts is open', $page->text());
        self::assertStringContainsString('1 of 7 are there', $page->text());
        self::assertCount(0, $page->filter('.demo'), 'it is no demo');
        self::assertSame(
            ['Whin Hill Crafts', 'DE', 'EUR', ',', 0],
            array_values((array) $this->connection()->fetchAssociative(
                'SELECT name, country, currency, decimal_mark, demo FROM business',
            )),
        );
        self::assertSame('AM', $this->connection()->fetchOne('SELECT code FROM site'));
        self::assertSame('anna.lang@whinhill.example', $this->connection()->fetchOne('SELECT email FROM person'));
        $this->see('/begin');
        self::assertResponseRedirects('/sign-in', null, 'only once');
    }

    /** @return iterable<string, array{array<string, string>, string, string}> */
    private static function slips(): iterable
    {
        yield 'no name' => [['name' => ' '], 'name', 'Say what the business is called.'];
        yield 'no country' => [['country' => ''], 'country', 'no country'];
        yield 'an address that is none' => [['email' => 'anna'], 'email', '“anna” is no email address'];
        yield 'too short' => [['password' => 'short'], 'password', '5 characters'];
        yield 'known to all' => [['password' => 'qwertyuiop123456'], 'password', 'everybody tries first'];
        yield 'that of the demo' => [['password' => 'larkmoor-honey'], 'password', 'everybody tries first'];
        yield 'one’s own address' => [['password' => 'my anna.lang secret'], 'password', 'your own address'];
    }

    public function testASlipStandsAtItsFieldAndNothingIsOpened(): void
    {
        foreach (self::slips() as $slip => [$changes, $field, $reason]) {
            $page = $this->begin($changes);
            self::assertResponseStatusCodeSame(422, $slip);
            self::assertStringContainsString($reason, $page->filter('#'.$field.'_error')->text());
            self::assertSame('Am Hügel', $page->filter('#site')->attr('value'), 'nothing typed is lost');
        }
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM business'));
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM person'));
    }

    public function testEveryPageIsThereBeforeAnythingElseIs(): void
    {
        $this->begin();
        $this->browser->followRedirect();
        foreach (Pages::ALL as $addresses) {
            foreach ($addresses as $address) {
                if (1 !== preg_match('/[{A-Z0-9]/', $address)) {
                    $this->see($address);
                    self::assertSame(200, $this->browser->getResponse()->getStatusCode(), $address);
                }
            }
        }
    }

    public function testFiguresAreWrittenAndReadWithTheMarkOfTheBusiness(): void
    {
        $this->begin();
        $item = ['code' => 'W/1', 'name' => 'Wachs', 'unit' => 'KGM', 'sort' => 'sold', 'sales_price' => '12,345',
            'weight' => '1,5'];
        $this->post('/items/new', $item);
        self::assertResponseRedirects('/items/W/1');
        self::assertSame('12.35', $this->connection()->fetchOne('SELECT sales_price FROM item'), 'to the cent');
        $page = $this->see('/items/W/1/edit');
        self::assertSame('12,35', $page->filter('#sales_price')->attr('value'));
        self::assertSame('1,5', $page->filter('#weight')->attr('value'));
        self::assertStringContainsString('12,35', $this->see('/items')->filter('#item-rows')->text());
    }

    public function testAPriceSavedAsItStandsStaysWhatItIs(): void
    {
        $this->begin();
        $this->post('/items/new', ['code' => 'W1', 'name' => 'Wachs', 'unit' => 'KGM', 'sort' => 'sold']);
        $this->post('/suppliers', ['code' => 'IMKER', 'name' => 'Imkerei', 'currency' => 'EUR']);
        $this->post('/suppliers/IMKER/offers/new', [
            'item' => 'W1', 'pack' => 'block', 'content' => '2,5', 'supplier_code' => 'X', 'lead_days' => '3',
            'prices' => ['left0' => '1', 'right0' => '22,755', 'left1' => '10', 'right1' => '1,250'],
        ]);
        self::assertResponseRedirects();
        $id = (int) $this->number('SELECT MAX(id) FROM offer');
        $prices = fn (): array => $this->connection()
            ->fetchFirstColumn('SELECT price FROM price_break ORDER BY from_packs');
        self::assertSame(['22.7550', '1.2500'], array_slice(array_map(
            static fn (mixed $price): string => is_string($price) ? $price : '',
            $prices(),
        ), 0, 2));
        $form = $this->see('/suppliers/IMKER/offers/'.$id)->filter('#offer')->form();
        self::assertSame('22,755', $form->getValues()['prices[right0]']);
        $this->browser->submit($form);
        self::assertResponseRedirects();
        self::assertSame(['22.7550', '1.2500'], array_slice($prices(), 0, 2), 'saved as it stood');
        self::assertSame('2.500000', $this->connection()->fetchOne('SELECT pack_content FROM offer'));
    }
}
