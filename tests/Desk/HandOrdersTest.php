<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Order\PurchaseOrder;

/** Orders by hand, what becomes of them once they are out, and the page their suppliers see. */
final class HandOrdersTest extends DeskTestCase
{
    private function begin(string $supplier = 'VETRASOL', string $item = ''): string
    {
        $this->post('/orders/new', ['supplier' => $supplier, 'item' => $item]);
        self::assertResponseRedirects();
        $path = (string) parse_url((string) $this->browser->getResponse()->headers->get('Location'), \PHP_URL_PATH);

        return basename($path);
    }

    /** @return array<string, mixed> the form of the order's page */
    private function form(string $number): array
    {
        /** @var array<string, mixed> $values */
        $values = $this->see('/orders/'.$number)->filter('#order')->form()->getPhpValues();

        return array_diff_key($values, ['_token' => 1]);
    }

    /** The words of the order as it went out last. */
    private function paper(string $number): string
    {
        $path = (string) $this->see('/orders/'.$number)->filter('a[href*="/sent/"]')->first()->attr('href');
        $this->browser->request('GET', $path);
        $paper = (string) tempnam(sys_get_temp_dir(), 'paper');
        file_put_contents($paper, $this->browser->getResponse()->getContent());
        $words = (string) shell_exec('pdftotext -layout '.escapeshellarg($paper).' -');
        unlink($paper);

        return $words;
    }

    /** @return list<int> of the lines */
    private function ids(string $number): array
    {
        return array_map(
            static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0,
            $this->connection()->fetchFirstColumn(
                'SELECT l.id FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ?
                 ORDER BY l.position',
                [$number],
            ),
        );
    }

    /** What the first charge on the page is for. */
    private function firstReason(): ?string
    {
        return $this->browser->getCrawler()->filter('input[name="adjust_reason[0]"]')->attr('value');
    }

    /** @return list<array<string, mixed>> */
    private function lines(string $number): array
    {
        return $this->connection()->fetchAllAssociative(
            'SELECT i.code, CAST(l.packs AS DOUBLE) packs, CAST(l.price AS DOUBLE) price, l.wanted_on day, s.code site
             FROM order_line l JOIN purchase_order o ON o.id = l.order_id LEFT JOIN item i ON i.id = l.item_id
             JOIN site s ON s.id = l.site_id WHERE o.number = ? ORDER BY l.position',
            [$number],
        );
    }

    public function testSuppliersAreFoundByPartsAndAnOpenDraftIsOfferedFirst(): void
    {
        $this->as('mara');
        $found = $this->see('/orders/new?q=lum')->filter('#suppliers-found');
        self::assertCount(1, $found->filter('form'));
        self::assertStringContainsString('Lumen Fold Packaging', $found->text());
        self::assertSame('/orders/PO-1082?more=1', $found->filter('a.btn')->attr('href'));
        self::assertStringContainsString('No supplier is called so.', $this->see('/orders/new?q=zzz')->text());
        $sellers = $this->see('/orders/new?item=JAR-370H')->filter('#suppliers-found .nm')->each(
            static fn ($one): string => $one->text(),
        );
        self::assertContains('Vetrasol Glassworks', $sellers);
        self::assertNotContains('Brenmoor Joinery', $sellers, 'only who sells it');
    }

    public function testBegunTwiceThereIsOneAndItFollowsTheSupplier(): void
    {
        $this->as('mara');
        $number = $this->begin('TINDAVIK');
        self::assertSame($number, $this->begin('TINDAVIK'), 'an empty draft is taken again');
        $page = $this->see('/orders/'.$number)->text();
        $terms = $this->browser->getCrawler()->filter('[name="delivery_terms"]')->attr('value');
        self::assertSame('FCA Tindavik', $terms);
        foreach (['Tindavik Containers', 'net 60', 'biuro@tindavik.example', 'PLN'] as $words) {
            self::assertStringContainsString($words, $page);
        }
        self::assertStringContainsString('It has no lines', $page);
        $with = $this->begin('VETRASOL', 'JAR-370H');
        self::assertSame(['JAR-370H'], array_column($this->lines($with), 'code'));
        $this->as('tam');
        $this->browser->request('GET', '/orders/new');
        self::assertResponseStatusCodeSame(403);
    }

    public function testWhileTypingTheListSaysWhatIsHereAndWhoSellsIt(): void
    {
        $this->as('mara');
        $number = $this->begin();
        $found = $this->see('/orders/'.$number.'/choices?add=jar+370')->filter('[role="option"]');
        self::assertGreaterThan(0, $found->count());
        $text = $found->first()->text();
        foreach (['JAR-370H', 'Depot has', 'also'] as $words) {
            self::assertStringContainsString($words, $text);
        }
        self::assertNotNull($found->first()->attr('data-packs'));
        $other = $this->see('/orders/'.$number.'/choices?add=BKT-15')->filter('[role="option"]')->first();
        self::assertStringContainsString('not from them; Tindavik would', $other->text());
        self::assertSame('true', $other->attr('aria-disabled'));
        $byTheirs = $this->connection()->fetchOne(
            "SELECT o.supplier_code FROM offer o JOIN supplier s ON s.id = o.supplier_id JOIN item i ON i.id = o.item_id
             WHERE s.code = 'VETRASOL' AND i.code = 'JAR-370H' LIMIT 1",
        );
        self::assertIsString($byTheirs);
        self::assertStringContainsString(
            'JAR-370H',
            $this->see('/orders/'.$number.'/choices?add='.urlencode($byTheirs))->text(),
        );
        self::assertSame('', trim($this->see('/orders/'.$number.'/choices?add=')->text('')));
    }

    public function testWhatStandsThereAlreadyIsRaisedAndSaid(): void
    {
        $this->as('mara');
        $number = $this->begin('VETRASOL', 'JAR-340R');
        $packs = $this->lines($number)[0]['packs'];
        self::assertIsNumeric($packs);
        $this->post(
            '/orders/'.$number,
            ['do' => 'save', 'add' => 'JAR-340R', 'add_quantity' => '3'] + $this->form($number),
        );
        $this->browser->followRedirect();
        self::assertStringContainsString('JAR-340R stood on line 1 already; it is', $this->text());
        self::assertSame([$packs + 3.0], array_column($this->lines($number), 'packs'));
        $this->post(
            '/orders/'.$number,
            [
                'do' => 'save',
                'add' => 'JAR-340R',
                'add_quantity' => '3',
                'add_site' => (string) $this->number("SELECT id FROM site WHERE code = 'FERRY'"),
            ] + $this->form($number),
        );
        self::assertCount(2, $this->lines($number), 'another site is another line');
    }

    public function testALineComesInSeveralDeliveriesAtThePriceOfAllOfIt(): void
    {
        $this->as('mara');
        $number = $this->begin('LUMEN', 'JAR-45H');
        [$line] = $this->ids($number);
        $ferry = (string) $this->number("SELECT id FROM site WHERE code = 'FERRY'");
        $share = fn (array $more): mixed => $this->post(
            '/orders/'.$number,
            ['do' => 'save'] + $more + $this->form($number),
        );
        $share(['quantity' => [$line => '24']]);
        self::assertSame(10.09, $this->lines($number)[0]['price']);
        $share(['later' => [$line => '24'], 'later_day' => [$line => '2026-12-20']]);
        self::assertSame(
            '24 of 24 cannot be set to another day; fewer than all of them can.',
            $this->browser->getCrawler()->filter('#e-later-'.$line)->text(),
        );
        $share(['later' => [$line => '2'], 'later_day' => [$line => '2026-11-01']]);
        self::assertStringContainsString('1 Nov 2026 is over.', $this->text());
        $share(['later' => [$line => '0.5'], 'later_day' => [$line => '2026-12-20']]);
        self::assertStringContainsString(
            'They do not split',
            $this->browser->getCrawler()->filter('#e-later-'.$line)->text(),
        );

        $share(['later' => [$line => '12'], 'later_day' => [$line => '2026-12-20'], 'later_site' => [$line => $ferry]]);
        self::assertResponseRedirects();
        $lines = $this->lines($number);
        self::assertSame([12.0, 12.0], array_column($lines, 'packs'));
        self::assertSame([10.09, 10.09], array_column($lines, 'price'), 'they cost what 24 cost');
        self::assertSame(['DEPOT', 'FERRY'], array_column($lines, 'site'));
        self::assertSame('2026-12-20', $lines[1]['day']);
        self::assertStringContainsString('1.1', $this->see('/orders/'.$number)->filter('#order table')->text());

        $second = $this->ids($number)[1];
        $share(['quantity' => [$line => '1', $second => '10']]);
        self::assertSame([10.66, 10.66], array_column($this->lines($number), 'price'), '11 are below the break at 12');
        $share(['price' => [$line => '6.5']]);
        self::assertSame([6.5, 6.5], array_column($this->lines($number), 'price'), 'one price for all of them');

        $share(['remove' => [$line => '1']]);
        self::assertSame([10.0], array_column($this->lines($number), 'packs'), 'what is left stands by itself');
        self::assertNull($this->connection()->fetchOne('SELECT part_of_id FROM order_line WHERE id = ?', [$second]));
    }

    public function testTheCostingSheetAddsUpToTheOrderWithWhatIsChargedOnIt(): void
    {
        $this->as('mara');
        $this->browser->request('GET', '/orders/PO-1079/costing.pdf');
        self::assertResponseIsSuccessful();
        $file = (string) tempnam(sys_get_temp_dir(), 'costing');
        file_put_contents($file, $this->browser->getResponse()->getContent());
        $words = (string) shell_exec('pdftotext -layout '.escapeshellarg($file).' -');
        unlink($file);
        self::assertStringContainsString('What PO-1079 will cost', $words);
        $order = $this->entities()->getRepository(PurchaseOrder::class)->findOneBy(['number' => 'PO-1079']);
        self::assertInstanceOf(PurchaseOrder::class, $order);
        $costing = $order->costing();
        self::assertTrue($costing->goods->amount->isPositive());
        self::assertStringContainsString(number_format($costing->total()->amount->toFloat(), 2), $words);
    }

    public function testPastedLinesAreTakenWholeOrEachBadRowIsNamed(): void
    {
        $this->as('mara');
        $number = $this->begin();
        $bad = "JAR-340R;4\nNONSUCH;1\nBKT-15;2\nJAR-340R;2;x\nJAR-340R;1;9;2026-12-20;MOON";
        $this->post('/orders/'.$number, ['do' => 'save', 'paste' => $bad] + $this->form($number));
        self::assertResponseStatusCodeSame(422);
        $said = $this->browser
            ->getCrawler()
            ->filter('#e-paste li')
            ->each(static fn ($row): string => trim($row->text()));
        sort($said);
        self::assertSame(
            [
                'Row 2: There is no item “NONSUCH”.',
                'Row 3: Vetrasol Glassworks does not offer BKT-15; Tindavik Containers does.',
                'Row 4: “x” is not a number; expected an amount of 0 or more, such as 9.30.',
                'Row 5: There is no site “MOON”.',
            ],
            $said,
        );
        self::assertSame($bad, $this->browser->getCrawler()->filter('textarea[name="paste"]')->text(null, false));
        self::assertSame([], $this->lines($number), 'nothing half done');
        $good = "JAR-340R;4\nJAR-340R;2;9.99;2026-12-20;FERRY";
        $this->post('/orders/'.$number, ['do' => 'save', 'paste' => $good] + $this->form($number));
        self::assertResponseRedirects();
        $lines = $this->lines($number);
        self::assertSame([4.0, 2.0], array_column($lines, 'packs'));
        self::assertSame([9.99, '2026-12-20', 'FERRY'], [$lines[1]['price'], $lines[1]['day'], $lines[1]['site']]);
    }

    public function testLinesOfNothingAreTakenOutAfterAsking(): void
    {
        $this->as('mara');
        $number = $this->begin();
        $this->post('/orders/'.$number, ['do' => 'save', 'paste' => "JAR-340R;4\nJAR-454R;2"] + $this->form($number));
        $form = $this->form($number);
        self::assertIsArray($form['quantity']);
        $first = (int) array_key_first($form['quantity']);
        $form['quantity'][$first] = '0';
        $this->post('/orders/'.$number, ['do' => 'save'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Some lines have a quantity of 0.', $this->text());
        self::assertCount(2, $this->lines($number));
        $this->post('/orders/'.$number, ['sweep' => '1'] + $form);
        self::assertResponseRedirects();
        self::assertSame(['JAR-454R'], array_column($this->lines($number), 'code'));
    }

    public function testADayThatIsOverIsRefusedAndALineMayHaveItsOwn(): void
    {
        $this->as('mara');
        $number = $this->begin('VETRASOL', 'JAR-340R');
        $form = $this->form($number);
        $this->post('/orders/'.$number, ['do' => 'save', 'wanted' => '2026-11-20'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('20 Nov 2026 is over', $this->text());
        self::assertIsArray($form['quantity']);
        $line = (int) array_key_first($form['quantity']);
        $this->post('/orders/'.$number, ['do' => 'save', 'day' => [$line => '2026-12-22']] + $form);
        self::assertSame(['2026-12-22'], array_column($this->lines($number), 'day'));
    }

    private function version(string $number): string
    {
        return (string) (int) $this->number('SELECT version FROM purchase_order WHERE number = ?', [$number]);
    }

    /** A sent order, and the path its supplier sees it at. */
    private function sent(): string
    {
        return '/order/'.$this->token();
    }

    private function token(): string
    {
        $token = $this->connection()->fetchOne("SELECT token FROM purchase_order WHERE number = 'PO-1079'");

        return is_string($token) ? $token : self::fail('no link');
    }

    private function state(): string
    {
        $state = $this->connection()->fetchOne("SELECT state FROM purchase_order WHERE number = 'PO-1079'");

        return is_string($state) ? $state : '';
    }

    /**
     * What the supplier posts, without being anybody here.
     *
     * @param array<string, mixed> $fields
     */
    private function theyPost(array $fields): void
    {
        $this->browser->getCookieJar()->clear();
        $this->browser->request('POST', $this->sent(), $fields);
    }

    public function testTheSupplierConfirmsWithOnePress(): void
    {
        $this->see($this->sent());
        self::assertResponseIsSuccessful();
        self::assertResponseHeaderSame('Referrer-Policy', 'no-referrer');
        self::assertStringContainsString('Order PO-1079', $this->text());
        $this->theyPost(['do' => 'all', 'revision' => '1']);
        self::assertResponseRedirects($this->sent());
        self::assertSame('acknowledged', $this->state());
        self::assertStringContainsString('Thank you, it is confirmed.', $this->see($this->sent())->text());
        $this->see($this->sent().'/order.pdf');
        self::assertStringStartsWith('%PDF-', (string) $this->browser->getResponse()->getContent());
    }

    public function testWhatTheyAnswerOtherwiseWaitsForUs(): void
    {
        $form = $this->see($this->sent())->filter('form')->form()->getPhpValues();
        self::assertIsArray($form['quantity']);
        self::assertIsArray($form['day']);
        $line = (int) array_key_first($form['quantity']);
        $form['quantity'][$line] = '1';
        $form['day'][$line] = 'soon';
        $this->theyPost(['do' => 'lines'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“soon” is not a day', $this->text());
        self::assertSame('1', $this->browser->getCrawler()->filter('input[name="quantity['.$line.']"]')->attr('value'));
        $form['day'][$line] = '2026-12-23';
        $this->theyPost(['do' => 'lines', 'message' => 'Kiln trouble.'] + $form);
        self::assertResponseRedirects();
        self::assertSame('sent', $this->state());

        $this->as('mara');
        $page = $this->see('/orders/PO-1079');
        self::assertStringContainsString('answered otherwise', $page->text());
        self::assertStringContainsString('Kiln trouble.', $page->text());
        $act = (string) $page->filter('.answered form')->attr('action');
        $this->post($act, ['do' => 'no', 'version' => $this->version('PO-1079')]);
        $this->browser->followRedirect();
        self::assertStringContainsString('Why not? The supplier reads it.', $this->text());
        $this->post($act, ['do' => 'yes', 'version' => $this->version('PO-1079')]);
        self::assertSame('acknowledged', $this->state());
        self::assertSame(1.0, $this->number('SELECT packs FROM order_line WHERE id = ?', [$line]));
        self::assertStringContainsString('Revision 2', $this->see('/orders/PO-1079')->text());
    }

    public function testALinkOfAnotherOrderOrOfNoneLeadsNowhere(): void
    {
        $none = '/order/'.str_repeat('0', 32);
        foreach ([$none, '/order/PO-1079', $none.'/order.pdf'] as $path) {
            $this->browser->request('GET', $path);
            self::assertResponseStatusCodeSame(404);
        }
        $this->browser->request('POST', $none, ['do' => 'all', 'revision' => '1']);
        self::assertResponseStatusCodeSame(404);
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET state = 'cancelled', wanted_on = '2026-08-01', promised_on = NULL
             WHERE number = 'PO-1079'",
        );
        $this->browser->request('GET', $this->sent());
        self::assertResponseStatusCodeSame(404, 'its time is over');
    }

    public function testARevisionIsPreparedSentAndShown(): void
    {
        $this->as('rowan');
        $this->post('/orders/PO-1079/revision/begin');
        self::assertResponseRedirects('/orders/PO-1079/revision');
        /** @var array<string, mixed> $form */
        $form = $this->see('/orders/PO-1079/revision')->filter('#amend')->form()->getPhpValues();
        $form = array_diff_key($form, ['_token' => 1]);
        self::assertIsArray($form['quantity']);
        $form['quantity'][0] = 'lots';
        $this->post('/orders/PO-1079/revision', ['do' => 'send'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“lots” is not a number', $this->text());
        $form['quantity'][0] = '12';
        $this->post('/orders/PO-1079/revision', ['do' => 'save'] + $form);
        self::assertResponseRedirects('/orders/PO-1079/revision');
        self::assertStringContainsString('prepares revision 2', $this->see('/orders/PO-1079')->text());
        self::assertSame(20.0, $this->number(
            "SELECT l.packs FROM order_line l JOIN purchase_order o ON o.id = l.order_id
             WHERE o.number = 'PO-1079' AND l.position = 1",
        ));
        /** @var array<string, mixed> $form */
        $form = $this->see('/orders/PO-1079/revision')->filter('#amend')->form()->getPhpValues();
        $this->post('/orders/PO-1079/revision', ['do' => 'send'] + array_diff_key($form, ['_token' => 1]));
        self::assertResponseRedirects('/orders/PO-1079');
        $this->browser->followRedirect();
        self::assertStringContainsString('Revision 2 is on its way', $this->text());
        self::assertStringContainsString('quantity 20 12', $this->text());
        self::assertStringContainsString('What is different since revision 1', $this->see($this->sent())->text());
        $this->theyPost(['do' => 'all', 'revision' => '1']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('revision 2 is in force', $this->text());
    }

    public function testTheRevisionThatIsGoneAndTheOneThrownAway(): void
    {
        $this->as('rowan');
        $this->see('/orders/PO-1079/revision');
        self::assertResponseRedirects('/orders/PO-1079');
        $this->post('/orders/PO-1079/revision/begin');
        $this->post('/orders/PO-1079/revision/drop');
        $this->browser->followRedirect();
        self::assertStringContainsString('the order stands as it was sent', $this->text());
        $this->post('/orders/PO-1079/revision', ['do' => 'send', 'version' => '1']);
        $this->browser->followRedirect();
        self::assertStringContainsString('That revision is gone', $this->text());
        $this->post('/orders/PO-1082/revision/begin');
        $this->browser->followRedirect();
        self::assertStringContainsString('is draft; nothing is to come on it', $this->text());
    }

    public function testConfirmedByHandWithLinesOnOtherDays(): void
    {
        $this->as('mara');
        $form = $this->see('/orders/PO-1079')->filter('form[action$="/acknowledge"]')->form()->getPhpValues();
        self::assertIsArray($form['promised_line']);
        $line = (int) array_key_first($form['promised_line']);
        $this->post('/orders/PO-1079/acknowledge', [
            'version' => $this->version('PO-1079'),
            'promised' => '2026-12-05',
            'promised_line' => [$line => '2026-12-19'],
        ]);
        self::assertSame('acknowledged', $this->state());
        self::assertSame(
            '2026-12-19',
            $this->connection()->fetchOne('SELECT due FROM open_line WHERE id = ?', [$line]),
        );
        self::assertStringContainsString('for Sat 19 Dec', $this->see('/orders/PO-1079')->text());
    }

    public function testOpenedAgainFromItsPage(): void
    {
        $this->as('rowan');
        $this->post('/orders/PO-1079/cancel', ['version' => $this->version('PO-1079'), 'reason' => 'Twice ordered.']);
        self::assertSame('cancelled', $this->state());
        self::assertStringContainsString('Please deliver nothing of it.', $this->see($this->sent())->text());
        $this->as('rowan');
        $this->post('/orders/PO-1079/reopen', ['version' => $this->version('PO-1079')]);
        self::assertSame('sent', $this->state());
        $this->post('/orders/PO-1079/reopen', ['version' => $this->version('PO-1079')]);
        $this->browser->followRedirect();
        self::assertStringContainsString('there is nothing to open again', $this->text());
    }

    public function testBelowTheirMinimumTheQuestionBeforeSendingSaysSo(): void
    {
        $this->as('rowan');
        $asks = fn (string $number): string => (string) $this->see('/orders/'.$number)
            ->filter('.strip button[data-ask]')
            ->attr('data-ask');
        self::assertStringNotContainsString('short of their minimum', $asks('PO-1082'));
        self::assertStringContainsString('500 short of their minimum of 500', $asks($this->begin('VETRASOL')));
    }

    public function testDiscountsChargesAndTaxAddUpAndStandOnThePaper(): void
    {
        $this->as('rowan');
        $form = $this->form('PO-1082');
        [$first, $second] = $this->ids('PO-1082');
        self::assertSame('Small order', $this->firstReason(), 'as every order to them begins');
        $typed = array_replace_recursive($form, [
            'discount' => [$first => '10 %'],
            'tax' => [$first => '25'],
            'to_them' => [$first => 'Flat, please.'],
            'to_us' => [$first => 'For the fair.'],
            'adjust_kind' => [1 => 'allowance'],
            'adjust_reason' => [1 => 'Year-end'],
            'adjust_amount' => [1 => '2 %'],
        ]);
        // 114.00 less 10 % is 102.60; 156.00; less 2 % of 258.60; the fee stands only below 250.
        $this->post('/orders/PO-1082', ['do' => 'save'] + $typed);
        self::assertResponseRedirects();
        $sums = $this->see('/orders/PO-1082')->filter('table.sum')->text();
        self::assertStringContainsString('Goods 258.60', $sums);
        self::assertStringContainsString('Year-end 2 % −5.17', $sums);
        self::assertStringNotContainsString('Small order', $sums);
        self::assertStringContainsString('Tax 25 % on 102.60 25.65', $sums);
        self::assertStringContainsString('€279.08', $sums);
        self::assertStringContainsString('€253.43', $this->browser->getCrawler()->filter('.title')->text());

        // Two cartons of the second line less, and the fee is due.
        $again = array_replace_recursive($this->form('PO-1082'), ['quantity' => [$second => '1']]);
        $this->post('/orders/PO-1082', ['do' => 'save'] + $again);
        $sums = $this->see('/orders/PO-1082')->filter('table.sum')->text();
        self::assertStringContainsString('Small order 12.50', $sums);

        $this->post('/orders/PO-1082', ['email' => 'o@lumen.example', 'do' => 'send'] + $this->form('PO-1082'));
        $page = $this->see('/orders/PO-1082')->text();
        self::assertStringContainsString('38.00 less 10 % · tax 25 % · to them: Flat, please. · for us: For', $page);
        $words = $this->paper('PO-1082');
        foreach (['Flat, please.', '38.00 less 10 %', 'Small order', 'Year-end 2 %', 'Tax 25 %'] as $part) {
            self::assertStringContainsString($part, $words);
        }
        self::assertStringNotContainsString('For the fair', $words, 'that is for us');
    }

    public function testWhatCannotBeReadOfChargesStandsBesideThem(): void
    {
        $this->as('rowan');
        $form = $this->form('PO-1082');
        [$first] = $this->ids('PO-1082');
        $this->post('/orders/PO-1082', ['do' => 'save'] + array_replace_recursive($form, [
            'discount' => [$first => '120 %'],
            'tax' => [$first => 'much'],
            'adjust_reason' => [1 => ''],
            'adjust_amount' => [1 => '5'],
            'order_tax' => 'none',
        ]));
        self::assertResponseStatusCodeSame(422);
        foreach (['“much” is no tax', 'Say what it is for', '“none” is no tax', '120'] as $words) {
            self::assertStringContainsString($words, $this->text());
        }
        self::assertSame('much', $this->browser->getCrawler()->filter("input[name=\"tax[{$first}]\"]")->attr('value'));
        $this->post('/suppliers/LUMEN/charges', ['adjust_reason' => ['Fee'], 'adjust_amount' => ['-3']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“-3” is below zero', $this->text());
        $this->post('/suppliers/LUMEN/charges', [
            'adjust_reason' => ['Fee', ''],
            'adjust_amount' => ['3', ''],
        ]);
        self::assertStringContainsString('Fee 3', $this->see('/suppliers/LUMEN')->text());
        $next = $this->begin('LUMEN');
        $this->form($next);
        self::assertSame('Fee', $this->firstReason());
    }

    public function testWhatIsToBeThoughtOfStandsOnTodayOnItsDay(): void
    {
        $this->as('mara');
        $remember = fn (string $words, string $day) => $this->post('/orders/PO-1079/remember', [
            'their_reference' => 'AB-77',
            'reminder' => $words,
            'remind_on' => $day,
        ]);
        $remember('', '2026-11-23');
        self::assertStringContainsString('What is to be thought of', $this->see('/orders/PO-1079')->text());
        $remember('Ask for the pallet', '2026-11-24');
        self::assertStringNotContainsString('Ask for the pallet', $this->see('/')->text());
        $remember('Ask for the pallet', '2026-11-23');
        self::assertStringContainsString('Ask for the pallet', $this->see('/')->text());
        self::assertSame(
            'AB-77',
            $this->see('/orders/PO-1079')->filter('input[name="their_reference"]')->attr('value'),
        );
        $remember('', '');
        self::assertStringNotContainsString('Ask for the pallet', $this->see('/')->text());
    }

    /** @return list<string> code and packs of the lines */
    private function inShort(string $number): array
    {
        return array_map(
            static fn (mixed $line): string => is_string($line) ? $line : self::fail('No line.'),
            $this->connection()->fetchFirstColumn(
                "SELECT CONCAT(i.code, ' ', l.packs + 0e0) FROM order_line l
                 JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
                 WHERE o.number = ? ORDER BY l.position",
                [$number],
            ),
        );
    }

    public function testAnEarlierOrderIsBoughtOnceMoreAtTodaysPrices(): void
    {
        $this->as('rowan');
        $number = $this->begin('OSTREL');
        $earlier = $this->see('/orders/'.$number.'/earlier');
        self::assertStringContainsString('PO-1079', $earlier->text());
        self::assertCount(0, $earlier->filter('button[value="copy '.$number.'"]'), 'not itself');
        $this->connection()->executeStatement(
            "UPDATE offer f JOIN order_line l ON l.offer_id = f.id JOIN purchase_order o ON o.id = l.order_id
             SET f.blocked = 1 WHERE o.number = 'PO-1079' AND l.position = 1",
        );
        $this->entities()->clear();
        $this->post('/orders/'.$number, ['do' => 'copy PO-1079', 'note' => 'Typed before.'] + $this->form($number));
        $this->browser->followRedirect();
        self::assertStringContainsString('is left out: The offer of', $this->text());
        self::assertStringContainsString('Typed before.', $this->text());
        $was = $this->inShort('PO-1079');
        $first = explode(' ', $was[0])[0];
        $expected = array_values(
            array_filter($was, static fn (string $one): bool => !str_starts_with($one, $first.' ')),
        );
        self::assertNotSame([], $expected);
        self::assertSame($expected, $this->inShort($number));
        $this->post('/orders/'.$number, ['do' => 'copy PO-1082'] + $this->form($number));
        self::assertStringContainsString('is no other order to Ostrel', $this->see('/orders/'.$number)->text());
    }

    public function testADraftIsTakenInAndLinesAreSetApart(): void
    {
        $this->as('rowan');
        [$first, $second] = $this->ids('PO-1082');
        $form = array_replace_recursive($this->form('PO-1082'), ['discount' => [$second => '5 %']]);
        $this->post('/orders/PO-1082', ['do' => 'split', 'remove' => [$second => '1']] + $form);
        self::assertResponseRedirects();
        $apart = basename((string) $this->browser->getResponse()->headers->get('Location'));
        self::assertNotSame('PO-1082', $apart);
        self::assertSame(['BOT-500S 3'], $this->inShort('PO-1082'));
        self::assertSame(['PK-LBH-S 2'], $this->inShort($apart));
        self::assertStringContainsString('less 5 %', $this->see('/orders/'.$apart)->text());
        $this->post('/orders/PO-1082', ['do' => 'split', 'remove' => [$first => '1']] + $this->form('PO-1082'));
        self::assertStringContainsString('Tick some of the lines, not all', $this->see('/orders/PO-1082')->text());
        self::assertSame(['BOT-500S 3'], $this->inShort('PO-1082'), 'a refusal changes nothing');

        $this->post('/orders/PO-1082', ['do' => 'merge '.$apart] + $this->form('PO-1082'));
        self::assertSame(['BOT-500S 3', 'PK-LBH-S 2'], $this->inShort('PO-1082'));
        self::assertStringContainsString('less 5 %', $this->see('/orders/PO-1082')->text());
        self::assertSame(
            'cancelled',
            $this->connection()->fetchOne('SELECT state FROM purchase_order WHERE number = ?', [$apart]),
        );
        $this->post('/orders/PO-1082', ['do' => 'merge '.$apart] + $this->form('PO-1082'));
        self::assertStringContainsString('only a draft can be taken in', $this->see('/orders/PO-1082')->text());
    }

    public function testTheirOrdersAreInTheirLanguageAndWithoutPricesIfTheyWishSo(): void
    {
        $this->as('rowan');
        /** @var array<string, mixed> $form */
        $form = $this->see('/suppliers/LUMEN')->filter('#supplier')->form()->getPhpValues();
        unset($form['_token'], $form['sees_prices']);
        $this->post('/suppliers/LUMEN', ['language' => 'de', 'email' => 'o@lumen.example'] + $form);
        self::assertResponseRedirects();
        $this->post('/orders/PO-1082', ['do' => 'send'] + $this->form('PO-1082'));
        $paper = $this->paper('PO-1082');
        foreach (['Bestellung PO-1082', 'Montag, 23. November 2026', 'Menge', 'Bitte bestätigen Sie'] as $words) {
            self::assertStringContainsString($words, $paper);
        }
        foreach (['38.00', '114.00', 'Preis', 'Gesamt', 'Please'] as $words) {
            self::assertStringNotContainsString($words, $paper);
        }
        $mailbox = $this->see('/mailbox')->text();
        self::assertStringContainsString('Bestellung PO-1082 von Larkmoor Bee Supply', $mailbox);
        self::assertStringContainsString('Mit freundlichen Grüßen', $mailbox);
        $version = (string) (int) $this->number("SELECT version FROM purchase_order WHERE number = 'PO-1082'");
        $this->post('/orders/PO-1082/cancel', ['version' => $version, 'reason' => 'Doppelt bestellt.']);
        $mailbox = $this->see('/mailbox')->text();
        self::assertStringContainsString('Bestellung PO-1082 von Larkmoor Bee Supply ist storniert', $mailbox);
        self::assertStringContainsString('bitte streichen Sie unsere Bestellung PO-1082 vom Montag, 23. Nov', $mailbox);
    }

    public function testTheSupplierSaysWhatHasLeftAndItIsFoundByItsTrackingNumber(): void
    {
        $this->as('rowan');
        $link = (string) $this->see('/orders/PO-1079')->filter('a[href^="/order/"]')->attr('href');
        [$first, $second] = $this->ids('PO-1079');
        $packs = $this->number('SELECT packs FROM order_line WHERE id = ?', [$first]);
        $left = fn (array $packs, string $here) => $this->browser->request('POST', $link.'/left', [
            'left' => $packs,
            'here' => $here,
            'carrier' => 'Fellside Carriers',
            'tracking' => 'FS-4711',
        ]);
        $left([$first => (string) ($packs + 1)], '2026-11-26');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('are still to come.', $this->text());
        $left([$first => '0'], '2026-11-26');
        self::assertStringContainsString('How much of which line has left?', $this->text());
        $left([$first => (string) $packs], '2026-11-20');
        self::assertStringContainsString('20 Nov 2026 is over', $this->text());
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM despatch'));

        $left([$first => (string) $packs, $second => '1'], '2026-11-26');
        self::assertResponseRedirects($link);
        self::assertStringContainsString('Left Mon 23 Nov', $this->see($link)->text(), 'they see it, too');
        $this->as('rowan');
        $page = $this->see('/orders/PO-1079')->text();
        self::assertStringContainsString('here Thu 26 Nov, with Fellside Carriers, tracking FS-4711', $page);
        self::assertSame(
            ['2026-11-26', null],
            $this->connection()->fetchFirstColumn(
                'SELECT promised_on FROM order_line WHERE id IN (?, ?) ORDER BY position',
                [$first, $second],
            ),
            'planning counts on the day of what left whole',
        );
        self::assertStringContainsString('PO-1079', $this->see('/find?q=FS-47')->text());
    }

    public function testAnotherAddressACarrierAndAProjectAreKeptAndFound(): void
    {
        $this->as('rowan');
        $this->post('/orders/PO-1082', [
            'do' => 'send',
            'email' => 'o@lumen.example',
            'deliver_to' => 'Fairground, stall 12, Larkmoor',
            'carrier' => 'Fellside Carriers',
            'project' => 'Winter fair',
        ] + $this->form('PO-1082'));
        $paper = (string) preg_replace('/\s+/', ' ', $this->paper('PO-1082'));
        self::assertStringContainsString('Fairground,', $paper);
        self::assertStringContainsString('Fellside', $paper);
        self::assertStringNotContainsString('Winter fair', $paper, 'that is ours');
        self::assertStringNotContainsString('Heather Road 12, A94 LK08 Larkmoor, IE', $paper);
        $page = $this->see('/orders/PO-1082')->text();
        self::assertStringContainsString('to Fairground, stall 12', $page);
        self::assertStringContainsString('Winter fair', $page);
        self::assertStringContainsString('PO-1082', $this->see('/orders?words=winter+fair')->text());
    }

    public function testTheLetterIsChangedBeforeItGoesAndOthersGetACopy(): void
    {
        $this->as('rowan');
        $letter = $this->see('/orders/PO-1082/letter')->filter('textarea')->text(normalizeWhitespace: false);
        self::assertStringContainsString('Dear Signe Aaby', $letter);
        self::assertStringContainsString('[link]', $letter);
        $send = fn (string $copies) => $this->post('/orders/PO-1082', [
            'do' => 'send',
            'email' => 'o@lumen.example',
            'letter' => str_replace('Kind regards', 'See you at the fair', $letter),
            'copies' => $copies,
        ] + $this->form('PO-1082'));
        $send('boss@lumen.example, nobody');
        self::assertStringContainsString('“nobody” is not an email address', $this->text());
        self::assertStringContainsString('See you at the fair', $this->text(), 'nothing typed is lost');
        self::assertSame('draft', $this->connection()->fetchOne(
            "SELECT state FROM purchase_order WHERE number = 'PO-1082'",
        ));
        $send('boss@lumen.example; store@lumen.example');
        $mail = $this->see('/mailbox')->text();
        foreach (['See you at the fair', '/order/', 'boss@lumen.example', 'store@lumen.example'] as $words) {
            self::assertStringContainsString($words, $mail);
        }
        self::assertStringNotContainsString('Kind regards', $mail);
        self::assertStringContainsString(
            'The mail server took “Order PO-1082 from Larkmoor Bee Supply”',
            $this->see('/orders/PO-1082')->text(),
        );
        self::assertStringNotContainsString('[link]', $mail);
    }

    public function testTheirFileIsAsTheirSystemTakesIt(): void
    {
        $this->as('rowan');
        /** @var array<string, mixed> $form */
        $form = $this->see('/suppliers/LUMEN')->filter('#supplier')->form()->getPhpValues();
        unset($form['_token']);
        $file = [
            'wants_csv' => '1',
            'csv_columns' => "your_code = ArtNr\nquantity = Menge",
            'csv_delimiter' => ';',
            'csv_filename' => 'LK_{order}',
            'email' => 'o@lumen.example',
        ];
        $this->post('/suppliers/LUMEN', ['csv_columns' => 'colour'] + $file + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“colour” is no column of an order', $this->text());
        $this->post('/suppliers/LUMEN', $file + $form);
        self::assertResponseRedirects();
        $this->post('/orders/PO-1082', ['do' => 'send'] + $this->form('PO-1082'));
        self::assertStringContainsString('LK_PO-1082.csv', $this->see('/mailbox')->text());
        $csv = $this->connection()->fetchOne(
            "SELECT d.content FROM sent_document d JOIN purchase_order o ON o.id = d.order_id
             WHERE o.number = 'PO-1082' AND d.media_type = 'text/csv'",
        );
        self::assertSame("ArtNr;Menge\r\nLF-SQ500;3\r\nLF-LBH-S;2\r\n", $csv);
    }

    public function testALineIsForACustomerWhoWaitsOrForSomebodyHere(): void
    {
        $this->as('mara');
        $site = (string) (int) $this->number("SELECT id FROM site WHERE code = 'DEPOT'");
        $this->post('/promises', [
            'customer' => 'Whin Top', 'reference' => 'sale 88', 'item' => 'JAR-370H', 'quantity' => '24',
            'day' => '2026-12-20', 'site' => $site,
        ]);
        $promise = (string) (int) $this->number('SELECT MAX(id) FROM customer_promise');
        $number = $this->begin('VETRASOL', 'JAR-370H');
        [$jar] = $this->ids($number);
        $this->post('/orders/'.$number, [
            'do' => 'save', 'add' => 'Mould hire', 'add_quantity' => '1', 'add_price' => '40',
        ] + $this->form($number));
        [, $hire] = $this->ids($number);
        $choices = $this->see('/orders/'.$number)->filter('[name="promise['.$jar.']"] option');
        self::assertStringContainsString('Whin Top, 24', $choices->last()->text());
        self::assertCount(0, $this->browser->getCrawler()->filter('[name="promise['.$hire.']"]'));
        self::assertCount(0, $this->browser->getCrawler()->filter('[name="account['.$jar.']"]'));
        $other = (string) (int) $this->number(
            "SELECT p.id FROM customer_promise p JOIN item i ON i.id = p.item_id WHERE i.code <> 'JAR-370H' LIMIT 1",
        );
        $form = $this->form($number);
        $this->post('/orders/'.$number, ['do' => 'save', 'promise' => [$jar => $other]] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('was promised', $this->text());
        $this->post('/orders/'.$number, [
            'do' => 'save', 'promise' => [$jar => $promise], 'account' => [$hire => '4930'],
            'for_whom' => [$hire => 'the workshop'],
        ] + $form);
        self::assertResponseRedirects();
        self::assertStringContainsString('on '.$number, $this->see('/promises')->text());
        $this->post('/promises/'.$promise, ['do' => 'delivered']);
        $this->post('/orders/'.$number, ['do' => 'save', 'promise' => [$jar => $promise]] + $this->form($number));
        self::assertResponseRedirects('/orders/'.$number, null, 'it was tied before it was settled');
        $this->post('/orders/'.$number, ['do' => 'send'] + $this->form($number));
        $page = $this->see('/orders/'.$number)->text();
        self::assertStringContainsString('for the workshop · account 4930', $page);
    }

    public function testAnOrderMayHaveANumberOfOurOwnOnce(): void
    {
        $this->as('mara');
        $begin = fn (string $number) => $this->post('/orders/new', ['supplier' => 'VETRASOL', 'number' => $number]);
        foreach (
            [
                ['a/b 1', 'cannot be the number'],
                ['drafts', 'at least one digit'],
                ['po-9999', 'that we give out ourselves'],
                ['PO-1082', 'that we give out ourselves'],
            ] as [$number, $words]
        ) {
            $begin($number);
            self::assertStringContainsString($words, $this->browser->followRedirect()->text());
            self::assertSame($number, $this->browser->getCrawler()->filter('[name="number"]')->attr('value'));
        }
        $begin('GLASS-26.1');
        self::assertResponseRedirects('/orders/GLASS-26.1?more=1');
        $begin('glass-26.1');
        self::assertStringContainsString('a number is never used twice', $this->browser->followRedirect()->text());
        $found = $this->see('/orders/new?q=vetra&number=X-1')->filter('#suppliers-found [name="number"]');
        self::assertSame('X-1', $found->attr('value'));
    }

    public function testAnotherMayBePaidForOneOrder(): void
    {
        $this->as('mara');
        $number = $this->begin('VETRASOL', 'JAR-370H');
        $form = $this->form($number);
        self::assertSame('', $form['paid_to']);
        $this->post('/orders/'.$number, ['do' => 'save', 'paid_to' => 'Nobody & Sons'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('There is no supplier “Nobody & Sons”', $this->text());
        $this->post('/orders/'.$number, ['do' => 'save', 'paid_to' => 'Ostrel Wax'] + $form);
        self::assertSame('Ostrel Wax', $this->form($number)['paid_to']);
        $lumen = $this->begin('LUMEN', 'BOT-500S');
        self::assertSame('Vetrasol Glassworks', $this->form($lumen)['paid_to'], 'as the supplier is usually paid');
    }
}
