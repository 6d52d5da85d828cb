<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Stock\Verification;

/** The pages of the stock room: put right, looked at, sent back, followed by number. */
final class StockRoomPagesTest extends DeskTestCase
{
    private function available(string $code, string $site = 'DEPOT', string $state = 'available'): float
    {
        return $this->number(
            'SELECT COALESCE(SUM(b.quantity), 0) FROM stock_balance b JOIN item i ON i.id = b.item_id
             JOIN site s ON s.id = b.site_id WHERE i.code = ? AND s.code = ? AND b.state = ?',
            [$code, $site, $state],
        );
    }

    private function place(string $code, string $site = 'DEPOT', string $state = 'available'): string
    {
        return sprintf(
            '%s@%d|%s|',
            $this->available($code, $site, $state),
            (int) $this->number('SELECT id FROM site WHERE code = ?', [$site]),
            $state,
        );
    }

    /** @param array<string, string> $typed */
    private function putRight(string $code, array $typed): string
    {
        return $this->post('/items/'.$code.'/put-right', $typed + [
            'key' => bin2hex(random_bytes(6)), 'place' => $this->place($code), 'reason' => 'lost',
        ])->text();
    }

    private function proven(): void
    {
        $verification = self::getContainer()->get(Verification::class);
        self::assertInstanceOf(Verification::class, $verification);
        self::assertSame([], $verification->differences());
    }

    public function testStockIsPutRightFromTheItemsPageAndASlipLosesNothing(): void
    {
        $this->as('tam');
        $stands = $this->available('JAR-340R');
        $form = $this->see('/items/JAR-340R')->filter('#put-right form');
        self::assertContains('miscounted before', $form->filter('[name="reason"] option')->extract(['_text']));
        $page = $this->putRight('JAR-340R', ['do' => 'count', 'units' => 'many']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“many”', $page);
        $this->putRight('JAR-340R', ['do' => 'scrap', 'units' => '999999']);
        self::assertResponseStatusCodeSame(422);
        $typed = $this->browser->getCrawler()->filter('#put-right');
        self::assertStringContainsString('stand at Depot, not 999999', $typed->filter('.error')->text());
        self::assertSame('999999', $typed->filter('[name="units"]')->attr('value'));
        self::assertSame('scrap', $typed->filter('[name="do"] option[selected]')->attr('value'));
        $this->putRight('JAR-340R', ['do' => 'count', 'units' => '5', 'reason' => '']);
        self::assertStringContainsString('Say why', $this->text());
        $this->putRight('JAR-340R', ['do' => 'count', 'units' => '5', 'place' => '1@9|nowhere|']);
        self::assertStringContainsString('Choose where it stands', $this->text());

        $this->putRight('JAR-340R', ['do' => 'count', 'units' => (string) ($stands - 3), 'key' => 'twice']);
        self::assertResponseRedirects('/items/JAR-340R');
        $this->putRight('JAR-340R', ['do' => 'count', 'units' => (string) ($stands - 3), 'key' => 'twice']);
        self::assertSame($stands - 3, $this->available('JAR-340R'));
        $this->putRight('JAR-340R', ['do' => 'hold', 'units' => '4', 'reason' => 'broken']);
        self::assertSame(4.0, $this->available('JAR-340R', 'DEPOT', 'held'));
        self::assertStringContainsString('held back', $this->see('/items/JAR-340R')->filter('main')->text());
        $this->proven();
        $this->as('iris');
        $this->browser->request('POST', '/items/JAR-340R/put-right', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testWhatIsSetApartIsLookedAtSetFreeOrScrapped(): void
    {
        $this->as('tam');
        $row = $this->see('/dock/set-apart')->filter('tbody tr')->reduce(
            static fn ($one): bool => str_contains($one->text(), 'Coloured wax sheets'),
        );
        $words = (string) preg_replace('/\s+/', ' ', $row->text());
        self::assertStringContainsString('Look at 20; with up to 1 bad it is taken', $words);
        $form = $row->filter('form')->form()->getPhpValues();
        unset($form['_token']);
        $this->post('/dock/set-apart', ['do' => 'inspect', 'bad' => '21'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('21 of 20 looked at cannot be bad', $this->text());
        $this->post('/dock/set-apart', ['do' => 'inspect', 'bad' => 'some'] + $form);
        self::assertStringContainsString('“some” is no number of bad ones', $this->text());
        $this->post('/dock/set-apart', ['do' => 'inspect', 'bad' => '0'] + $form);
        self::assertResponseRedirects('/dock/set-apart');
        $page = $this->browser->followRedirect();
        self::assertStringNotContainsString('Coloured wax', $page->filter('tbody')->text());

        $held = $page->filter('tbody form')->first()->form()->getPhpValues();
        unset($held['_token']);
        $this->post('/dock/set-apart', ['do' => 'scrap', 'units' => '1', 'reason' => 'broken'] + $held);
        self::assertResponseRedirects();
        self::assertSame(1.0, $this->number("SELECT COUNT(*) FROM stock_movement WHERE kind = 'scrapped'"));
        $this->proven();
        $this->as('iris');
        $this->browser->request('GET', '/dock/set-apart');
        self::assertResponseStatusCodeSame(403);
    }

    public function testGoodsGoBackWithALetterEachWayAndAreMadeGood(): void
    {
        $this->as('tam');
        $line = $this->connection()->fetchAssociative(
            "SELECT x.id, r.number, d.id delivery, i.code, s.code site, l.pack_content content, x.packs
             FROM receipt_line x JOIN receipt r ON r.id = x.receipt_id JOIN order_line l ON l.id = x.line_id
             JOIN item i ON i.id = l.item_id JOIN delivery d ON d.id = r.delivery_id JOIN site s ON s.id = d.site_id
             WHERE i.code = 'CND-WAXB' ORDER BY x.id DESC LIMIT 1",
        );
        self::assertIsArray($line);
        [$id, $number, $delivery] = [$line['id'], $line['number'], $line['delivery']];
        self::assertIsInt($id);
        self::assertIsInt($delivery);
        self::assertIsString($number);
        $site = is_string($line['site']) ? $line['site'] : '';
        $content = is_numeric($line['content']) ? (float) $line['content'] : 0.0;
        $stands = $this->available('CND-WAXB', $site);
        $link = $this->see('/dock/deliveries/'.$delivery)->selectLink('Send something back')->attr('href');
        self::assertSame('/dock/returns/new/'.$number, $link);
        $typed = ['from' => 'available', 'wish' => 'credit', 'reason' => 'poor quality', 'write' => '1', 'key' => 'k'];
        foreach (
            [
                [['back' => [$id => '999']] + $typed, '999 cannot go back'],
                [['back' => [$id => 'one']] + $typed, '“one”'],
                [['back' => [$id => '1'], 'reason' => ''] + $typed, 'Say why they go back'],
                [['back' => [$id => '']] + $typed, 'Say of which line'],
                [['back' => [$id => '1'], 'from' => 'held'] + $typed, 'held back'],
            ] as [$bad, $words]
        ) {
            $page = $this->post($link, $bad);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($words, $page->filter('main')->text());
        }
        $this->post($link, ['back' => [$id => '1']] + $typed);
        $address = (string) $this->browser->getResponse()->headers->get('Location');
        self::assertMatchesRegularExpression('#^/dock/returns/B-\d+$#', $address);
        $this->post($link, ['back' => [$id => '1']] + $typed);
        self::assertResponseRedirects($address, null, 'pressed twice, begun once');
        self::assertStringContainsString('may it come back?', $this->letters());

        $this->post($address, ['do' => 'agree', 'words' => 'RMA 12']);
        $this->post($address, ['do' => 'send', 'write' => '1']);
        self::assertResponseRedirects($address);
        self::assertSame($stands - $content, $this->available('CND-WAXB', $site));
        self::assertStringContainsString('RMA 12', $this->letters());
        $this->post($address, ['do' => 'drop']);
        self::assertStringContainsString('is sent back already', $this->text());
        $this->post($address, ['do' => 'settle', 'words' => '']);
        self::assertStringContainsString('Which credit note', $this->text());
        $this->post($address, ['do' => 'settle', 'words' => 'CN 881']);
        self::assertStringContainsString('CN 881', $this->see('/dock/returns')->text());
        $this->proven();
        $this->as('iris');
        $this->browser->request('POST', $address, ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    private function letters(): string
    {
        $this->work();
        $instance = self::getContainer()->getParameter('instance_dir');
        $text = '';
        foreach (glob((is_string($instance) ? $instance : '').'/mail/*.eml') ?: [] as $letter) {
            $text .= quoted_printable_decode((string) file_get_contents($letter));
        }

        return $text;
    }

    public function testSerialNumbersAreTypedAtTheDockAndFollowed(): void
    {
        $this->as('tam');
        $page = $this->see('/items/EQ-X9/serials')->text();
        self::assertStringContainsString('2 here, 3 ever', $page);
        $this->post('/items/EQ-X9/serials', ['do' => 'add', 'numbers' => 'KX9-5001-KX9-5003, KX9-4479']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('KX9-4479 is known already', $this->text());
        self::assertStringContainsString('KX9-5001', $this->browser->getCrawler()->filter('textarea')->text());
        $this->post('/items/EQ-X9/serials', ['do' => 'add', 'numbers' => 'KX9-5001 KX9-5002']);
        self::assertResponseRedirects();
        $id = (string) (int) $this->number("SELECT id FROM serial WHERE number = 'KX9-5001'");
        $this->post('/items/EQ-X9/serials', ['do' => 'gone', 'serial' => $id, 'to' => '']);
        self::assertStringContainsString('Say to whom', $this->text());
        $this->post('/items/EQ-X9/serials', ['do' => 'gone', 'serial' => $id, 'to' => 'Sallow Bridge school']);
        $found = $this->see('/items/EQ-X9/serials?words=school')->text();
        self::assertStringContainsString('Sallow Bridge school', $found);
        $this->post('/items/JAR-340R/serials', ['do' => 'gone', 'serial' => $id, 'to' => 'nobody']);
        self::assertResponseStatusCodeSame(404);
    }

    public function testReasonsAreTheOwnersToChoose(): void
    {
        $this->as('tam');
        $this->browser->request('POST', '/settings/reasons', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
        $this->as('rowan');
        $this->post('/settings/reasons', ['adjustment' => "eaten by mice\r\n\r\nBroken\r\n broken", 'return' => '']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Leave at least one', $this->text());
        $this->post('/settings/reasons', [
            'adjustment' => "eaten by mice\r\n\r\nBroken\r\n broken",
            'return' => 'not as ordered',
        ]);
        self::assertResponseRedirects();
        $reasons = $this->see('/items/JAR-340R')->filter('#put-right [name="reason"] option')->extract(['_text']);
        self::assertSame(['', 'Broken', 'eaten by mice'], $reasons);
        $this->post('/settings/reasons', ['adjustment' => str_repeat('x', 41), 'return' => 'too many']);
        self::assertStringContainsString('expected 1 to 40 characters', $this->text());
    }

    public function testWhatNobodyOrderedIsNotedAtOnceAndPlacedLater(): void
    {
        $this->as('tam');
        $depot = (string) (int) $this->number("SELECT id FROM site WHERE code = 'DEPOT'");
        $note = ['what' => 'Two wet cartons, jars by the sound', 'from' => 'perhaps Ostrel', 'packages' => '2',
            'note' => 'LS 77', 'carrier' => 'van', 'site' => $depot];
        foreach (['what' => '', 'packages' => '1.5'] as $field => $bad) {
            $page = $this->post('/dock/unknown', [$field => $bad] + $note);
            self::assertResponseStatusCodeSame(422);
            self::assertNotSame('', $page->filter('p.error')->text());
            self::assertSame('LS 77', $page->filter('[name="note"]')->attr('value'), 'nothing typed is lost');
        }
        $this->post('/dock/unknown', $note);
        $this->post('/dock/unknown', ['what' => 'A bicycle'] + $note);
        self::assertStringContainsString('Two wet cartons', $this->see('/')->text(), 'Today tells of it');
        $page = $this->see('/dock/unknown');
        $places = $page->filter('form[action$="/place"]');
        self::assertCount(2, $places);

        // The second is not ours.
        $away = (string) $page->filter('form[action$="/away"]')->eq(1)->attr('action');
        $this->post($away, ['because' => '']);
        self::assertStringContainsString('Say why', $this->see('/dock/unknown')->text());
        $this->post($away, ['because' => 'wrong house, driver took it back']);
        self::assertStringContainsString('driver took it back', $this->see('/dock/unknown')->text());
        $this->post($away, ['because' => 'once more']);
        self::assertStringContainsString('That is decided already: sent away', $this->see('/dock/unknown')->text());

        $order = (string) (int) $this->number("SELECT id FROM purchase_order WHERE number = 'PO-1079'");
        $this->post((string) $places->first()->attr('action'), ['order' => $order]);
        self::assertResponseRedirects();
        $this->browser->followRedirect();
        self::assertStringContainsString('delivery note LS 77', $this->text());
        self::assertStringContainsString('Came unannounced', $this->see('/orders/PO-1079')->text());
        self::assertStringNotContainsString('Two wet cartons', $this->see('/')->text());

        $this->as('iris');
        $this->post('/dock/unknown', $note);
        self::assertResponseStatusCodeSame(403);
    }

    public function testWhatIsOfNoOpenOrderStaysWaiting(): void
    {
        $this->as('tam');
        $this->post('/dock/unknown', ['what' => 'A pallet', 'packages' => '1', 'site' => '1']);
        $path = (string) $this->see('/dock/unknown')->filter('form[action$="/place"]')->attr('action');
        $order = (string) (int) $this->number("SELECT MIN(id) FROM purchase_order WHERE state = 'received'");
        $this->post($path, ['order' => $order]);
        $page = $this->see('/dock/unknown');
        self::assertStringContainsString('Nothing of these orders is still to come', $page->text());
        self::assertCount(1, $page->filter('form[action$="/place"]'));
    }

    public function testShelvesAreCountedBlindThenShownThenBooked(): void
    {
        $this->as('tam');
        $form = function (string $query): array {
            $page = $this->see('/stock/count?'.$query);
            self::assertCount(0, $page->filter('#counting th:contains("Should be")'), 'nothing gives it away');
            /** @var array{counted: array<int, string>, last: array<int, string>} $values */
            $values = $page->filter('#counting')->form()->getPhpValues();

            return $values;
        };
        $site = (string) (int) $this->number("SELECT id FROM site WHERE code = 'DEPOT'");
        $values = $form('site='.$site.'&words=Jars+and+lids');
        $item = (int) explode('|', $values['last'][0])[0];
        $stands = $this->number(
            "SELECT SUM(quantity) FROM stock_balance WHERE item_id = ? AND site_id = ? AND state = 'available'",
            [$item, $site],
        );
        $values['counted'][0] = (string) ($stands - 3);
        $values['counted'][1] = 'two';
        $page = $this->post('/stock/count', ['do' => 'show'] + $values);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“two” is not a number', $page->text());
        $values['counted'][1] = '';
        $page = $this->post('/stock/count', ['do' => 'show'] + $values);
        self::assertStringContainsString('1 counted, 1 differs', $page->filter('#strip')->text());
        self::assertStringContainsString('-3', str_replace('−', '-', $page->filter('#counting')->text()));
        $held = fn (): float => $this->number(
            "SELECT SUM(quantity) FROM stock_balance WHERE item_id = ? AND site_id = ? AND state = 'available'",
            [$item, $site],
        );
        self::assertSame($stands, $held(), 'shown, not booked');

        // Somebody sells one meanwhile.
        $stale = $values;
        $this->connection()->executeStatement(
            "INSERT INTO stock_movement (item_id, site_id, state, lot, kind, quantity, day, at, reference)
             VALUES (?, ?, 'available', '', 'sale', -1, '2026-11-23', '2026-11-23 10:31:00', 'till')",
            [$item, $site],
        );
        $page = $this->post('/stock/count', ['do' => 'book'] + $stale);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('moved while you were counting', $page->text());
        $this->connection()->executeStatement("DELETE FROM stock_movement WHERE reference = 'till'");

        $this->post('/stock/count', ['do' => 'book', 'reason' => ' '] + $values);
        self::assertStringContainsString('Say why', $this->text());
        $this->post('/stock/count', ['do' => 'book', 'reason' => 'year end'] + $values);
        self::assertResponseRedirects();
        self::assertSame($stands - 3, $held());
        $this->post('/stock/count', ['do' => 'book', 'reason' => 'year end'] + $values);
        self::assertSame($stands - 3, $held(), 'pressed twice, booked once');

        // What is doubted is what was wrong lately; what was counted is due again by its class.
        $doubted = $form('site='.$site.'&pick=doubted');
        self::assertContains((string) $item, array_map(
            static fn (string $last): string => explode('|', $last)[0],
            $doubted['last'],
        ));
        $due = $form('site='.$site.'&words=Jars+and+lids&pick=due');
        self::assertNotContains($item, array_map(
            static fn (string $last): int => (int) explode('|', $last)[0],
            $due['last'],
        ));
        $this->connection()->executeStatement('UPDATE stocking SET counted_on = ? WHERE item_id = ?', [
            '2026-05-01', $item,
        ]);
        self::assertSame($item, (int) explode('|', $form('site='.$site.'&words=Jars+and+lids&pick=due')['last'][0])[0]);
        $this->as('iris');
        $this->see('/stock/count');
        self::assertResponseStatusCodeSame(403);
    }

    public function testGoodsGoFromOneSiteToAnotherAndASlipLosesNothing(): void
    {
        $this->as('tam');
        $sites = [];
        foreach (['DEPOT', 'MILL'] as $code) {
            $sites[$code] = (string) (int) $this->number('SELECT id FROM site WHERE code = ?', [$code]);
        }
        $ask = ['from' => $sites['DEPOT'], 'to' => $sites['MILL'], 'key' => 'k1'];
        $page = $this->post('/transfer', ['item' => 'no such thing', 'quantity' => 'many'] + $ask);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('There is no item “no such thing”', $page->text());
        self::assertStringContainsString('“many”', $page->text());
        self::assertSame('no such thing', $page->filter('[name="item"]')->attr('value'));
        $page = $this->post('/transfer', ['item' => 'TUB-500', 'quantity' => '99999'] + $ask);
        self::assertStringContainsString('not 99999', $page->filter('.error')->text());

        // By its whole name.
        $this->post('/transfer', ['item' => 'Comb tub 500 g, clear', 'quantity' => '12'] + $ask);
        $show = (string) $this->browser->getResponse()->headers->get('Location');
        self::assertMatchesRegularExpression('~^/dock/transfers/T-\d+$~', $show);
        $line = (int) $this->number('SELECT MAX(id) FROM transfer_line');
        $stands = $this->available('TUB-500');
        $page = $this->post($show, ['do' => 'send', 'picked' => [$line => '1 2x']]);
        self::assertResponseStatusCodeSame(422);
        self::assertSame('1 2x', $page->filter('.qty')->attr('value'));
        $page = $this->post($show, ['do' => 'send', 'picked' => [$line => '88888']]);
        self::assertStringContainsString('Nothing left yet', $page->filter('[role="alert"]')->text());
        self::assertStringContainsString('not 88888', $page->filter('.error')->text());
        self::assertSame($stands, $this->available('TUB-500'));

        $this->browser->request('GET', $show.'/paper');
        self::assertStringStartsWith('%PDF', (string) $this->browser->getResponse()->getContent());
        $this->post($show, ['do' => 'send', 'picked' => [$line => '12']]);
        self::assertResponseRedirects($show);
        self::assertSame($stands - 12, $this->available('TUB-500'));
        self::assertStringContainsString('From Depot', $this->see('/dock')->filter('nav.list')->text());

        $page = $this->post($show, ['do' => 'receive', 'came' => [$line => '11'], 'bad' => [$line => '2']]);
        self::assertStringContainsString('Say what is wrong', $page->filter('.error')->text());
        self::assertSame('11', $page->filter('[name="came['.$line.']"]')->attr('value'));
        $this->post($show, [
            'do' => 'receive', 'came' => [$line => '11'], 'bad' => [$line => '2'], 'why' => [$line => 'dented'],
            'rest' => [$line => 'lost'],
        ]);
        self::assertResponseRedirects($show);
        self::assertSame(
            [9.0, 2.0, 0.0],
            [
                $this->available('TUB-500', 'MILL'), $this->available('TUB-500', 'MILL', 'held'),
                $this->available('TUB-500', 'MILL', 'on-its-way'),
            ],
        );
        $text = $this->see($show)->filter('main')->text();
        self::assertStringContainsString('2 not good, held back', $text);
        self::assertStringContainsString('dented', $text);
        $this->proven();
    }

    public function testWhoWorksElsewhereNeitherSendsNorReceives(): void
    {
        $this->connection()->executeStatement(
            "UPDATE person SET seen_sites = (SELECT CONCAT('[', id, ']') FROM site WHERE code = 'MILL')
             WHERE email LIKE 'tam@%'",
        );
        $this->as('tam');
        $this->browser->request('GET', '/dock/transfers/T-1002');
        self::assertResponseStatusCodeSame(403);
        self::assertStringNotContainsString('T-1002', $this->see('/dock/transfers')->text());
    }

    public function testLabelsAreProposedFromWhatCameAndPrinted(): void
    {
        $this->as('tam');
        $receipt = $this->connection()->fetchAssociative(
            "SELECT r.number, x.lot, x.packs * l.pack_content units, i.code FROM receipt_line x
             JOIN receipt r ON r.id = x.receipt_id JOIN order_line l ON l.id = x.line_id JOIN item i ON i.id = l.item_id
             WHERE x.lot <> '' ORDER BY x.id DESC LIMIT 1",
        );
        self::assertIsArray($receipt);
        [$number, $lot] = [$receipt['number'], $receipt['lot']];
        self::assertIsString($number);
        self::assertIsString($lot);
        $page = $this->see('/labels?receipt='.$number);
        $row = $page->filter('tbody tr')->reduce(static fn ($one): bool => str_contains($one->text(), 'lot '.$lot));
        self::assertStringContainsString('(10)'.$lot, $row->first()->text());
        self::assertEqualsWithDelta($receipt['units'], (float) $row->first()->filter('.qty')->attr('value'), 0.001);

        $page = $this->post('/labels', ['receipt' => $number, 'many' => ['0' => 'some', '1' => '501']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“some”', $page->text());
        self::assertStringContainsString('up to 500', $page->text());
        self::assertSame('some', $page->filter('.qty')->first()->attr('value'));
        self::assertStringContainsString(
            'Say of which label how many',
            $this->post('/labels', ['receipt' => $number, 'many' => ['0' => '0']])->text(),
        );
        foreach (['3x8' => 2, 'single' => 25] as $sheet => $pages) {
            $this->post('/labels', ['receipt' => $number, 'many' => ['0' => '25'], 'sheet' => $sheet]);
            $pdf = (string) $this->browser->getResponse()->getContent();
            self::assertSame(1, preg_match('~/Count (\d+)~', $pdf, $found));
            self::assertSame($pages, (int) $found[1], $sheet);
        }
        $this->post('/labels', ['receipt' => $number, 'many' => ['0' => '24'], 'used' => ['0' => '1']]);
        self::assertSame(1, preg_match('~/Count 2~', (string) $this->browser->getResponse()->getContent()));
        $page = $this->see('/labels?item=no+such');
        self::assertStringContainsString('no item “no such”', $page->filter('.error')->text());
        self::assertGreaterThan(5, $this->see('/labels?bins=1')->filter('tbody .qty')->count());
    }

    public function testGoodsAndThenTheirBinAreScanned(): void
    {
        $this->as('tam');
        $before = $this->available('BKT-30');
        $there = $this->available('BKT-30', 'DEPOT', 'at-dock');
        self::assertSame(12.0, $there);
        $page = $this->post('/dock/put-away', ['scan' => 'no such thing']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Nothing at the dock is “no such thing”', $page->filter('.error')->text());
        self::assertStringContainsString(
            'check digit',
            $this->post('/dock/put-away', ['scan' => '(01)09506000134353'])->filter('.error')->text(),
        );
        $this->post('/dock/put-away', ['scan' => 'BKT-30']);
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('Now the bin', (string) $page->filter('#scan')->attr('placeholder'));
        $typed = $page->filter('#scanning')->form()->getPhpValues();
        $page = $this->post('/dock/put-away', ['scan' => 'A-99-9'] + $typed);
        self::assertStringContainsString('Depot has no bin “A-99-9”', $page->filter('.error')->text());
        $page = $this->post('/dock/put-away', ['scan' => '', 'units' => '13'] + $typed);
        self::assertStringContainsString('not 13', $page->filter('.error')->text());
        self::assertSame('13', $page->filter('[name="units"]')->attr('value'));
        // Enter takes the bin that is proposed.
        $this->post('/dock/put-away', ['scan' => ''] + $typed);
        self::assertResponseRedirects('/dock/put-away');
        self::assertSame($before + 12, $this->available('BKT-30'));
        $page = $this->post('/dock/put-away/move', ['item' => 'BKT-30', 'site' => '1', 'bin' => 'nowhere']);
        self::assertStringContainsString('no bin “nowhere”', $page->filter('.error')->text());
        $this->as('iris');
        $this->browser->request('GET', '/dock/put-away');
        self::assertResponseStatusCodeSame(403);
    }

    public function testALotIsFollowedDescribedAndSettledOnItsPage(): void
    {
        $this->as('tam');
        $url = '/items/MED-WAX/lot?number=B0715';
        $page = $this->see($url);
        self::assertStringContainsString('received from', $page->filter('main')->text());
        self::assertStringContainsString('T-1002', $page->filter('main')->text(), 'where some of it went');
        $page = $this->post('/items/MED-WAX/lot', [
            'number' => 'B0715', 'do' => 'describe', 'expires' => '2026-01-01', 'made' => '2026-02-01',
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('before it was made', $page->filter('.error')->text());
        $page = $this->post('/items/MED-WAX/lot', ['number' => 'B0715', 'do' => 'describe', 'raw' => 'Atlantis']);
        self::assertStringContainsString('Atlantis', $page->filter('.error')->text());
        $this->post('/items/MED-WAX/lot', [
            'number' => 'B0715', 'do' => 'describe', 'expires' => '2026-11-01', 'origin' => 'DE', 'raw' => 'UA',
            'theirs' => 'K-8',
        ]);
        self::assertResponseRedirects($url);
        self::assertSame('UA', $this->see($url)->filter('[name="raw"]')->attr('value'));
        self::assertSame(1.0, $this->number(
            "SELECT COUNT(*) FROM audit_entry WHERE subject = 'item MED-WAX' AND words LIKE '%theirs K-8%'",
        ));

        // Expired: Today leads here, and here it is held back.
        $link = $this->see('/')->filter('a[href*="number=B0715"]');
        self::assertGreaterThan(0, $link->count());
        $form = $this->see($url)->selectButton('Hold back')->first()->form()->getPhpValues();
        $this->post('/items/MED-WAX/lot', ['do' => 'hold', 'units' => '99999'] + $form);
        self::assertResponseStatusCodeSame(422);
        $this->post('/items/MED-WAX/lot', ['do' => 'hold'] + $form);
        self::assertResponseRedirects($url);
        self::assertStringContainsString('held back', $this->see($url)->filter('main')->text());
        $this->browser->request('GET', '/items/MED-WAX/lot?number=never');
        self::assertResponseStatusCodeSame(404);
        $this->as('iris');
        self::assertCount(0, $this->see($url)->filter('[value="scrap"]'));
        $this->browser->request('POST', '/items/MED-WAX/lot', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testARolePutsStockRightOnlyUpToWhatTheOwnerSaid(): void
    {
        $this->as('rowan');
        $values = $this->see('/settings/rights')->filter('#rights')->form()->getPhpValues();
        $page = $this->post('/settings/rights', ['limit-stockroom' => 'much'] + $values);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“much”', $page->filter('#e-limit-stockroom')->text());
        $this->post('/settings/rights', ['limit-stockroom' => '5'] + $values);
        self::assertResponseRedirects();
        self::assertSame('5', $this->see('/settings/rights')->filter('[name="limit-stockroom"]')->attr('value'));
        $this->as('tam');
        $stands = $this->available('JAR-340R');
        $page = $this->putRight('JAR-340R', ['do' => 'scrap', 'units' => '200']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('worth more than the stockroom may', $page);
        $this->putRight('JAR-340R', ['do' => 'hold', 'units' => '200']);
        self::assertResponseRedirects();
        $this->putRight('JAR-340R', ['do' => 'scrap', 'units' => '1']);
        self::assertSame($stands - 201, $this->available('JAR-340R'), 'held back is not lost, and one is worth little');
        $this->as('rowan');
        $this->putRight('JAR-340R', ['do' => 'scrap', 'units' => '100']);
        self::assertSame($stands - 301, $this->available('JAR-340R'));
    }
}
