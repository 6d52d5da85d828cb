<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** The stage at the end of the run: invoices typed, compared, settled and paid. */
final class SettleTest extends DeskTestCase
{
    public function testFromWhatCameToWhatIsPaid(): void
    {
        $this->as('iris');
        $page = $this->see('/settle');
        $card = $page->filter('.list a[href^="/settle/new/"]')->first();
        $entry = $this->see((string) $card->attr('href'));
        self::assertResponseIsSuccessful();
        $form = $entry->filter('#entry')->form();
        $typed = $form->getPhpValues();
        self::assertIsArray($typed['packs']);
        self::assertIsArray($typed['price']);
        $line = (int) array_key_first($typed['packs']);
        $packs = self::figure($typed['packs'][$line]);
        $price = self::figure($typed['price'][$line]);
        $typed['packs'][$line] = (string) ($packs + 2);
        $action = (string) $entry->filter('#entry')->attr('action');
        // The sum on the paper shows that something was typed wrongly; nothing is lost.
        $this->post($action, ['number' => 'RT-9', 'day' => '2026-11-23', 'total' => '1'] + $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('come to', $this->text());
        $again = $this->browser->getCrawler();
        self::assertSame('RT-9', $again->filter('[name="number"]')->attr('value'));
        self::assertSame((string) ($packs + 2), $again->filter(sprintf('[name="packs[%d]"]', $line))->attr('value'));
        $this->post($action, ['number' => 'RT-9', 'day' => '2026-11-23'] + $typed);
        $match = $this->browser->followRedirect();
        self::assertStringContainsString('2 not received', $this->text());
        self::assertStringContainsString('The owner or a buyer decides', $this->text());
        self::assertCount(1, $match->filter('.strip button[disabled]'), 'not settled before it is decided');
        $here = (string) parse_url((string) $this->browser->getRequest()->getUri(), \PHP_URL_PATH);
        $this->post($here.'/decide', ['quantity' => 'as-received']);
        self::assertResponseStatusCodeSame(403);

        $this->as('mara');
        $this->browser->submit($this->see($here)->selectButton(sprintf(
            'Pay what came, %s less',
            self::euros(2 * $price),
        ))->form());
        $this->browser->followRedirect();
        self::assertStringContainsString('only what came is paid', $this->text());
        $this->post($here.'/release');
        self::assertResponseStatusCodeSame(403);

        $this->as('iris');
        $this->browser->submit($this->see($here)->filter('.strip form')->form());
        $this->browser->followRedirect();
        self::assertStringContainsString('RT-9 is settled', $this->text());
        $due = $this->see('/settle/payments');
        $rows = $due->filter('#payments tr');
        $row = $rows->reduce(static fn (Crawler $row): bool => str_contains($row->text(), 'RT-9'));
        $fields = [];
        foreach ($row->filter('input') as $input) {
            self::assertInstanceOf(\DOMElement::class, $input);
            $fields[$input->getAttribute('name')] = $input->getAttribute('value');
        }
        parse_str(http_build_query($fields), $ticked);
        $this->post('/settle/payments', ['day' => '2026-11-23', 'pay' => $ticked['pay'], 'seen' => $ticked['seen']]);
        $this->browser->followRedirect();
        self::assertStringContainsString('Paid: RT-9', $this->text());
        self::assertSame(
            round($packs * $price, 2),
            round($this->number("SELECT SUM(l.owed_packs * l.owed_price) FROM invoice_line l JOIN invoice i
                ON i.id = l.invoice_id WHERE i.number = 'RT-9' AND l.order_line_id = ?", [$line]), 2),
        );
    }

    public function testWhatAnOrderWasChargedWithStandsBesideItsInvoice(): void
    {
        $this->connection()->executeStatement('UPDATE purchase_order SET adjustments = ?', [
            (string) json_encode([
                [
                    'kind' => 'charge',
                    'reason' => 'Packing',
                    'amount' => '8.40',
                    'percent' => null,
                    'below' => null,
                    'category' => 'Z',
                    'tax' => '0',
                ],
            ]),
        ]);
        $this->as('iris');
        $card = $this->see('/settle')->filter('.list a[href^="/settle/new/"]')->first();
        $this->see((string) $card->attr('href'));
        self::assertMatchesRegularExpression('/PO-\d+ was ordered with Packing 8\.40\./', $this->text());
    }

    public function testABillIsSpreadInsteadOfWhatWasExpected(): void
    {
        $this->as('iris');
        $expected = $this->see('/settle/charges')->filter('.sheet')->first();
        self::assertStringContainsString('On goods already, no invoice yet', $expected->text());
        $form = $this->see((string) $expected->filter('a.btn')->attr('href'))->filter('#charge')->form();
        $form['amount'] = '20.00';
        $form['paper'] = 'KF 9';
        $token = $form->getPhpValues();
        $this->post('/settle/charges/new', ['do' => 'show'] + $token);
        self::assertStringContainsString('It takes the place of C-1002: freight of €10.87', $this->text());
        $this->post('/settle/charges/new', ['do' => 'book'] + $token);
        $title = $this->see('/settle/charges/C-1002')->filter('.title')->text();
        self::assertStringContainsString('taken back: C-1005 came instead', $title);
        self::assertStringNotContainsString('C-1002', $this->see('/settle')->filter('#work')->html());
    }

    public function testADepositIsTypedFromItsOrder(): void
    {
        $this->connection()->executeStatement('UPDATE supplier SET deposit_percent = 0 WHERE deposit_percent > 0');
        $this->connection()->executeStatement(
            "UPDATE supplier SET deposit_percent = 30 WHERE id = (SELECT supplier_id FROM purchase_order
                WHERE state = 'sent' ORDER BY id LIMIT 1)",
        );
        $this->as('iris');
        $card = $this->see('/settle')->filter('.list a[href*="deposit=PO-"]')->first();
        $agreed = $card->filter('.num')->text();
        $form = $this->see((string) $card->attr('href'))->filter('#entry')->form();
        $form['number'] = 'D-77';
        $form['day'] = '2026-11-23';
        $this->browser->submit($form);
        self::assertResponseRedirects();
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('Deposit of PO-', $page->filter('.work')->text());
        self::assertStringContainsString(substr($agreed, 3), $page->filter('.work')->text());
        self::assertStringNotContainsString('over the price', $page->filter('.work')->text());
        self::assertSame(1.0, $this->number('SELECT COUNT(*) FROM invoice_line WHERE deposit_id IS NOT NULL'));
    }

    /** One invoice for all that came in a month. */
    public function testAMonthIsInvoicedTogether(): void
    {
        $this->connection()->executeStatement('UPDATE receipt SET day = ? WHERE number = ?', ['2026-10-05', 'R-1186']);
        $this->as('iris');
        $page = $this->see('/settle/new/OSTREL');
        $all = $page->filter('#entry tbody input[name^="packs"]')->count();
        $link = $page->filter('.title a.btn')->reduce(
            static fn (Crawler $one): bool => str_contains($one->text(), 'All of Oct 2026'),
        );
        $page = $this->see((string) $link->attr('href'));
        self::assertStringContainsString('for all that came in October 2026', $page->filter('.title')->text());
        $some = $page->filter('#entry tbody input[name^="packs"]')->count();
        self::assertGreaterThan(0, $some);
        self::assertLessThan($all, $some);
        self::assertStringContainsString('R-1186', $page->filter('#entry')->text());
    }

    public function testWhatIsUsedOfGoodsOnConsignmentIsTakenOver(): void
    {
        $this->as('iris');
        $page = $this->see('/settle/consigned');
        self::assertCount(2, $page->filter('.sheet tbody tr'));
        self::assertCount(0, $page->filter('.strip button'));
        $line = (int) $this->number('SELECT MIN(id) FROM order_line WHERE still_theirs > 0');
        $this->connection()->executeStatement(
            'UPDATE stock_balance b JOIN order_line l ON l.item_id = b.item_id SET b.quantity = 0 WHERE l.id = ?',
            [$line],
        );
        $this->as('tam');
        $this->post('/settle/consigned');
        self::assertResponseStatusCodeSame(403);
        $this->as('iris');
        $this->browser->submit($this->see('/settle/consigned')->filter('.strip form')->form());
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('What was used is ours now', $page->text());
        self::assertStringContainsString('it was used', $page->filter('.sheet')->last()->text());
        self::assertSame(0.0, $this->number('SELECT still_theirs FROM order_line WHERE id = ?', [$line]));
    }

    public function testThePaymentsAreAFileToo(): void
    {
        $this->as('iris');
        $this->see('/settle/payments.csv');
        $file = (string) $this->browser->getResponse()->getContent();
        $lines = explode("\n", trim($file));
        self::assertStringContainsString('supplier code', $lines[0]);
        self::assertCount(
            1 + (int) $this->number("SELECT COUNT(*) FROM invoice WHERE state = 'settled'"),
            $lines,
        );
    }

    public function testTheStockroomOnlyLooks(): void
    {
        $this->as('tam');
        self::assertCount(0, $this->see('/settle')->filter('main form, .strip form'));
        $this->see('/settle/new/VETRASOL');
        self::assertResponseStatusCodeSame(403);
        $this->post('/settle/payments', ['day' => '2026-11-23', 'pay' => [1 => '1']]);
        self::assertResponseStatusCodeSame(403);
    }

    public function testNothingTickedAndADayToComeAreSaid(): void
    {
        $this->as('iris');
        $this->post('/settle/payments', ['day' => '2026-11-23']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Tick what was paid', $this->text());
        $id = (int) $this->number("SELECT MIN(id) FROM invoice WHERE state = 'settled'");
        $version = (string) $this->number('SELECT version FROM invoice WHERE id = ?', [$id]);
        $this->post('/settle/payments', ['day' => '2027-01-01', 'pay' => [$id => '1'], 'seen' => [$id => $version]]);
        $this->browser->followRedirect();
        self::assertStringContainsString('a day to come', $this->text());
        self::assertSame(1.0, $this->number("SELECT COUNT(*) FROM invoice WHERE id = ? AND state = 'settled'", [$id]));
    }

    private static function figure(mixed $typed): float
    {
        self::assertIsString($typed);

        return (float) str_replace(',', '', $typed);
    }

    private static function euros(float $amount): string
    {
        return '€'.number_format($amount, 2);
    }

    public function testAFreightBillIsShownBeforeItIsSpreadAndTakenBack(): void
    {
        $this->as('iris');
        self::assertStringContainsString('C-1001', $this->see('/settle/charges')->filter('main')->text());
        $receipt = $this->connection()->fetchOne(
            'SELECT r.number FROM receipt r JOIN receipt_line x ON x.receipt_id = r.id GROUP BY r.id
             HAVING COUNT(*) > 2 ORDER BY r.id DESC LIMIT 1',
        );
        self::assertIsString($receipt);
        self::assertSame($receipt, $this->see('/settle/charges/new?receipt='.$receipt)
            ->filter('[name="receipts"]')->attr('value'));
        $typed = ['kind' => 'freight', 'amount' => '30', 'currency' => 'EUR', 'basis' => 'quantity', 'key' => 'k1',
            'receipts' => $receipt, 'paper' => 'X-1', 'do' => 'show'];
        $page = $this->post('/settle/charges/new', ['amount' => 'much', 'receipts' => 'R-9 '.$receipt] + $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('There is no receipt “R-9”', $page->text());
        self::assertStringContainsString('“much”', $page->text());
        self::assertSame('X-1', $page->filter('[name="paper"]')->attr('value'));
        $page = $this->post('/settle/charges/new', ['basis' => 'typed', 'share' => ['1' => '5']] + $typed);
        self::assertStringContainsString('The shares are', $page->filter('.error')->text());

        $before = $this->number('SELECT COUNT(*) FROM landed_charge');
        $page = $this->post('/settle/charges/new', $typed);
        self::assertGreaterThan(2, $page->filter('tbody tr')->count());
        self::assertSame($before, $this->number('SELECT COUNT(*) FROM landed_charge'), 'shown, not booked');
        $this->post('/settle/charges/new', ['do' => 'book'] + $typed);
        $show = (string) $this->browser->getResponse()->headers->get('Location');
        $this->post('/settle/charges/new', ['do' => 'book'] + $typed);
        self::assertResponseRedirects($show);
        self::assertSame($before + 1, $this->number('SELECT COUNT(*) FROM landed_charge'), 'pressed twice');
        self::assertEqualsWithDelta(30.0, $this->number(
            'SELECT SUM(l.share) FROM landed_charge_line l JOIN landed_charge c ON c.id = l.charge_id
             WHERE c.number = ?',
            [basename($show)],
        ), 1e-9);
        $this->browser->request('POST', $show, ['_token' => 'x', 'why' => 'mine']);
        self::assertResponseStatusCodeSame(403);
        $this->as('rowan');
        $page = $this->post($show, ['why' => ' ']);
        self::assertStringContainsString('Say why', $page->filter('.error')->text());
        $this->post($show, ['why' => 'for the neighbour']);
        self::assertResponseRedirects($show);
        self::assertStringContainsString('taken back: for the neighbour', $this->see($show)->text());
        $this->as('tam');
        $this->browser->request('GET', '/settle/charges/new');
        self::assertResponseStatusCodeSame(403);
    }

    public function testAnAccountIsInForceWhenASecondPersonSaysSo(): void
    {
        $this->as('iris');
        $code = $this->connection()->fetchOne(
            "SELECT s.code FROM supplier s JOIN invoice v ON v.supplier_id = s.id WHERE v.state = 'settled' LIMIT 1",
        );
        self::assertIsString($code);
        $page = $this->post('/settle/accounts', ['supplier' => $code, 'iban' => 'DE88 3704 0044 0532 0130 00']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('check digits do not fit', $page->filter('.error')->text());
        self::assertSame('DE88 3704 0044 0532 0130 00', $page->filter('[name="iban"]')->attr('value'));
        $this->post('/settle/accounts', ['supplier' => $code, 'iban' => 'DE89 3704 0044 0532 0130 00']);
        self::assertResponseRedirects('/settle/accounts');
        $id = (int) $this->number("SELECT MAX(id) FROM supplier_account WHERE iban = 'DE89370400440532013000'");
        $state = function () use (&$id): float {
            return $this->number("SELECT COUNT(*) FROM supplier_account WHERE id = ? AND state = 'in-force'", [$id]);
        };
        $this->post('/settle/accounts/'.$id, ['do' => 'yes']);
        self::assertStringContainsString('another person has to', $this->browser->followRedirect()->text());
        self::assertSame(0.0, $state());
        $this->as('rowan');
        $this->post('/settle/accounts/'.$id, ['do' => 'yes']);
        self::assertSame(1.0, $state());
        self::assertSame(1.0, $this->number(
            "SELECT COUNT(*) FROM supplier_account a JOIN supplier s ON s.id = a.supplier_id
             WHERE s.code = ? AND a.state = 'in-force'",
            [$code],
        ), 'the one before is replaced');
        $this->post('/settle/accounts/'.$id, ['do' => 'no']);
        self::assertStringContainsString('in force already', $this->browser->followRedirect()->text());
        self::assertStringContainsString('account new since', $this->see('/settle/payments')->text());
        // Where nobody else may release, whoever is left says yes alone.
        $this->post('/settle/accounts', ['supplier' => $code, 'iban' => 'GB82 WEST 1234 5698 7654 32']);
        $id = (int) $this->number("SELECT MAX(id) FROM supplier_account WHERE iban = 'GB82WEST12345698765432'");
        $this->post('/settle/accounts/'.$id, ['do' => 'yes']);
        self::assertSame(0.0, $state());
        $this->connection()->executeStatement("UPDATE person SET blocked_at = '2026-11-01' WHERE role = 'bookkeeper'");
        $this->post('/settle/accounts/'.$id, ['do' => 'yes']);
        self::assertSame(1.0, $state());
        $this->as('mara');
        $this->browser->request('POST', '/settle/accounts', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testWhatIsTickedGoesToTheBankOnceInOneFile(): void
    {
        $this->as('iris');
        /** @var list<array{id: int, version: int, number: string}> $rows */
        $rows = $this->connection()->fetchAllAssociative(
            "SELECT v.id, v.version, v.number FROM invoice v JOIN supplier_account a ON a.supplier_id = v.supplier_id
             WHERE v.state = 'settled' AND v.currency = 'EUR' AND a.state = 'in-force' ORDER BY v.id LIMIT 2",
        );
        self::assertCount(2, $rows);
        $typed = ['day' => '2026-11-25'];
        foreach ($rows as $row) {
            $typed['pay'][$row['id']] = '1';
            $typed['seen'][$row['id']] = (string) $row['version'];
        }
        $said = function (array $typed): string {
            $this->post('/settle/payments/bank', $typed);

            return $this->browser->getResponse()->isRedirect() ? $this->browser->followRedirect()->text() : '';
        };
        self::assertStringContainsString('is over', $said(['day' => '2026-11-01'] + $typed));
        self::assertStringContainsString('Tick what goes', $said(['day' => '2026-11-25']));
        self::assertSame('', $said($typed));
        $document = new \DOMDocument();
        $xml = (string) $this->browser->getResponse()->getContent();
        self::assertNotSame('', $xml);
        self::assertTrue($document->loadXML($xml));
        $path = new \DOMXPath($document);
        $path->registerNamespace('p', 'urn:iso:std:iso:20022:tech:xsd:pain.001.001.09');
        $read = static function (string $query) use ($path): array {
            $nodes = $path->query($query);
            self::assertNotFalse($nodes);

            $texts = [];
            foreach ($nodes as $node) {
                $texts[] = (string) $node->nodeValue;
            }

            return $texts;
        };
        self::assertSame(['2', '2'], $read('//p:NbOfTxs'));
        $amounts = $read('//p:InstdAmt[@Ccy="EUR"]');
        self::assertCount(2, $amounts);
        self::assertEqualsWithDelta(
            array_sum(array_map(floatval(...), $amounts)),
            (float) $read('//p:GrpHdr/p:CtrlSum')[0],
            1e-6,
        );
        self::assertSame(['2026-11-25'], $read('//p:ReqdExctnDt/p:Dt'));
        self::assertStringContainsString($rows[0]['number'], implode(' ', $read('//p:Ustrd')));
        self::assertSame([
            'PmtInfId', 'PmtMtd', 'NbOfTxs', 'CtrlSum', 'PmtTpInf', 'ReqdExctnDt', 'Dbtr', 'DbtrAcct', 'DbtrAgt',
            'ChrgBr', 'CdtTrfTxInf', 'CdtTrfTxInf',
        ], array_map(
            static fn (\DOMNode $node): string => $node->nodeName,
            array_values(array_filter(
                iterator_to_array($document->getElementsByTagName('PmtInf')->item(0)->childNodes ?? []),
                static fn (\DOMNode $node): bool => $node instanceof \DOMElement,
            )),
        ), 'in the order of the message definition');
        self::assertStringContainsString('look at it once more', $said($typed), 'seen before it went into the file');
        foreach (array_keys($typed['pay']) as $id) {
            $typed['seen'][$id] = (string) (int) $this->number('SELECT version FROM invoice WHERE id = ?', [$id]);
        }
        self::assertStringContainsString('already; tick', $said($typed));
        self::assertSame('', $said(['again' => '1'] + $typed));
        $this->connection()->executeStatement('UPDATE supplier_account SET state = ?', ['replaced']);
        foreach (array_keys($typed['pay']) as $id) {
            $typed['seen'][$id] = (string) (int) $this->number('SELECT version FROM invoice WHERE id = ?', [$id]);
        }
        self::assertStringContainsString('has no account that two people', $said(['again' => '1'] + $typed));
    }

    /** An invoice that came as a file: what it says stands in the form, and the file stays with it. */
    public function testAnInvoiceReadFromAFile(): void
    {
        $this->as('iris');
        $order = $this->connection()->fetchAssociative(
            'SELECT o.number, l.supplier_code code, l.price, l.description name, l.received FROM order_line l
             JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             WHERE o.state = "received" AND l.received > 0 AND l.supplier_code <> "" AND s.currency = "EUR"
                AND NOT EXISTS (SELECT 1 FROM invoice_line v WHERE v.order_line_id = l.id) ORDER BY l.id DESC LIMIT 1',
        );
        self::assertIsArray($order);
        $order = array_map(static fn (mixed $one): string => is_scalar($one) ? (string) $one : '', $order);
        $net = number_format(round((float) $order['received'] * (float) $order['price'], 2), 2, '.', '');
        $tax = number_format(round((float) $net * 0.23, 2), 2, '.', '');
        $xml = strtr((string) file_get_contents(dirname(__DIR__).'/Reference/en16931/one_line.xml'), [
            '{order}' => $order['number'], '{code}' => $order['code'], '{quantity}' => $order['received'],
            '{price}' => $order['price'], '{name}' => htmlspecialchars($order['name']),
            '{net}' => $net, '{tax}' => $tax,
            '{total}' => number_format((float) $net + (float) $tax, 2, '.', ''),
        ]);
        $send = function (string $content): void {
            $form = $this->see('/settle/read')->filter('#read')->form();
            $file = (string) tempnam(sys_get_temp_dir(), 'invoice');
            file_put_contents($file, $content);
            $this->browser->request('POST', $form->getUri(), $form->getPhpValues(), [
                'file' => new UploadedFile($file, 'their invoice.xml', 'text/xml', null, true),
            ]);
        };
        $send(str_replace('<cbc:ID>F-77</cbc:ID>', '', $xml));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('BR-02: it has no number', $this->text());
        $send($xml);
        $entry = $this->browser->followRedirect();
        self::assertSame('F-77', $entry->filter('[name="number"]')->attr('value'));
        self::assertStringContainsString('nothing is entered yet', $this->text());
        self::assertCount(1, $entry->filter('[name^="packs["]'), 'what the file does not ask for is not in the way');
        $this->browser->submit($entry->filter('#entry')->form());
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('F-77 is entered', $this->text());
        self::assertStringContainsString('their invoice.xml', $page->filter('.side')->text());
        $this->see((string) $page->filter('.side a[href*="/papers/"]')->attr('href'));
        self::assertSame($xml, $this->browser->getResponse()->getContent());
        $send($xml);
        self::assertStringContainsString('F-77 of', $this->text());
        self::assertStringContainsString('was entered on', $this->text());
    }

    public function testACreditNoteIsTypedAndTakenOffWhatIsPaid(): void
    {
        $this->as('iris');
        $entry = $this->see('/settle/credits/new/OSTREL');
        $form = ['free-0' => 'abc', 'words-0' => 'Bonus'] + $entry->filter('#credit')->form()->getPhpValues();
        $this->post('/settle/credits/new/OSTREL', $form);
        self::assertResponseStatusCodeSame(422);
        $again = $this->browser->getCrawler();
        self::assertStringContainsString('abc', $again->filter('#error-free-0')->text());
        self::assertSame('Bonus', $again->filter('[name="words-0"]')->attr('value'));
        $good = ['free-0' => '40', 'number' => 'CN-7', 'day' => '2026-11-22'] + $form;
        $this->post('/settle/credits/new/OSTREL', $good);
        self::assertResponseRedirects('/settle/credits');
        $this->browser->followRedirect();
        self::assertStringContainsString('CN-7 is entered', $this->text());
        self::assertStringContainsString('to be taken off', $this->text());

        $due = $this->see('/settle/payments')->filter('#payments');
        $row = $due->filter('tr')->reduce(static fn (Crawler $row): bool => str_contains($row->text(), 'CN-7'));
        $tick = (string) $row->filter('[type="checkbox"]')->attr('name');
        self::assertSame(1, preg_match('/\d+/', $tick, $id));
        $typed = ['less' => [(int) $id[0] => '1'], 'day' => '2026-11-23'] + $due->form()->getPhpValues();
        $this->post('/settle/payments', $typed);
        $this->browser->followRedirect();
        self::assertStringContainsString('More is taken off than', $this->text());

        $this->as('tam');
        $this->post('/settle/credits/new/OSTREL', ['number' => 'CN-8']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testTheCashCalendarShowsWhatMovingAnOrderDoes(): void
    {
        $this->as('iris');
        $this->post('/settle/cash', ['cash' => '12x']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('12x', $this->browser->getCrawler()->filter('#error-cash')->text());
        $this->post('/settle/cash', ['cash' => '1']);
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('Short in the week of', $page->filter('h1')->text());
        $ordered = static fn (Crawler $page): array => array_filter($page->filter('tbody tr')->each(
            static fn (Crawler $row): string => $row->filter('td')->eq(3)->text('–'),
        ), static fn (string $sum): bool => '–' !== $sum);
        $before = $ordered($page);
        $moved = $this->see('/settle/cash?move=PO-1079&to=2027-03-01');
        self::assertNotSame($before, $ordered($moved));
        self::assertGreaterThan(0, $moved->filter('tr.bg-watch-soft')->count(), 'what changed is marked');
        $this->see('/settle/cash?move=PO-1079&to=soon');
        self::assertStringContainsString('“soon” is not a day', $this->text());

        $this->as('tam');
        $this->post('/settle/cash', ['cash' => '5']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testAPartIsPaidAndAStatementIsRead(): void
    {
        $this->as('iris');
        $page = $this->see('/settle/payments');
        $path = (string) $page->filter('#payments a[href^="/settle/"]')->last()->attr('href');
        $form = $this->see($path)->filter('form[action$="/part"]')->form();
        $this->post($path.'/part', ['amount' => '1', 'day' => ''] + $form->getPhpValues());
        $this->browser->followRedirect();
        self::assertStringContainsString('Say how much was paid, and when', $this->text());
        $this->browser->submit($form, ['amount' => '1.25']);
        $this->browser->followRedirect();
        self::assertStringContainsString('are still to be paid', $this->text());
        self::assertStringContainsString('a part is paid', $this->see('/settle/payments')->text());

        $iban = $this->connection()->fetchOne('SELECT iban FROM business');
        self::assertIsString($iban);
        $number = $this->see($path)->filter('h1')->text();
        $left = $this->connection()->fetchAssociative(
            'SELECT number, currency FROM invoice WHERE id = ?',
            [basename($path)],
        );
        self::assertIsArray($left);
        self::assertStringContainsString(self::string($left['number']), $number);
        $file = (string) tempnam(sys_get_temp_dir(), 'statement');
        file_put_contents($file, strtr(
            (string) file_get_contents(dirname(__DIR__).'/Reference/statement.xml'),
            ['DE89370400440532013000' => $iban, 'V-B22' => self::string($left['number']),
                '"EUR"' => '"'.self::string($left['currency']).'"', '>70.00<' => '>0.50<', ],
        ));
        $form = $this->see('/settle/statement')->filter('#statement')->form();
        $found = $this->browser->request('POST', $form->getUri(), $form->getPhpValues(), [
            'file' => new UploadedFile($file, 's.xml', 'text/xml', null, true),
        ]);
        self::assertStringContainsString('by the number that stands there, a part', $this->text());
        $this->browser->submit($found->filter('#statement')->form(), ['note[2]' => '1']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Noted as paid: 1', $this->text());
        self::assertStringContainsString('BANK-2/2', $this->see($path)->filter('.side')->text());
    }

    /** Half after 30 days, half after 60: what is ticked is the half that is due, and then the other. */
    public function testInstalmentsAreTickedOneByOne(): void
    {
        $this->as('iris');
        /** @var array{id: int, number: string, supplier: int} $one */
        $one = $this->connection()->fetchAssociative(
            "SELECT v.id, v.number, v.supplier_id supplier FROM invoice v JOIN supplier s ON s.id = v.supplier_id
             WHERE v.state = 'settled' AND v.paid IS NULL AND s.discount_percent = 0 ORDER BY v.day DESC, v.id LIMIT 1",
        );
        $this->connection()->executeStatement(
            "UPDATE supplier SET net_days = 90, instalments = '50@60 50@90' WHERE id = ?",
            [$one['supplier']],
        );
        $owed = round($this->number(
            'SELECT SUM(ROUND(owed_packs * owed_price * (1 + tax_percent / 100), 2)) FROM invoice_line
             WHERE invoice_id = ?',
            [$one['id']],
        ), 2);
        $row = fn (): Crawler => $this->see('/settle/payments')->filter('#payments tr')->reduce(
            static fn (Crawler $row): bool => str_contains($row->text(), $one['number']),
        );
        $pay = fn (Crawler $row): mixed => $this->post('/settle/payments', [
            'day' => '2026-11-23',
            'pay' => [$one['id'] => '1'],
            'seen' => [$one['id'] => (string) $row->filter('input[type="hidden"]')->attr('value')],
        ]);
        $first = $row();
        self::assertStringContainsString('the next of 2 parts, the last on', $first->text());
        $page = $this->see('/settle/'.$one['id']);
        self::assertStringContainsString('Part 1 of 2, due on', $page->text());
        self::assertStringContainsString('Part 2 of 2, due on', $page->text());
        $pay($first);
        $this->browser->followRedirect();
        self::assertStringContainsString('Paid: '.$one['number'], $this->text());
        $paid = fn (): float => $this->number('SELECT paid FROM invoice WHERE id = ?', [$one['id']]);
        self::assertEqualsWithDelta($owed / 2, $paid(), 0.006);
        $second = $row();
        self::assertStringContainsString('a part is paid', $second->text());
        self::assertStringNotContainsString('parts', $second->text());
        self::assertStringContainsString('Due on', $this->see('/settle/'.$one['id'])->text());
        $pay($second);
        $this->browser->followRedirect();
        self::assertEqualsWithDelta($owed, $paid(), 0.001);
        self::assertSame('paid', $this->connection()->fetchOne('SELECT state FROM invoice WHERE id = ?', [$one['id']]));
    }

    /** What stands on the side of Settle is cut short where it is long; all of it is one click away. */
    public function testALongListOfWhatCameIsShownInFullWhenAskedFor(): void
    {
        $this->as('iris');
        $shown = fn (string $path): int => $this->see($path)->filter('.list a[href*="receipt="]')->count();
        $all = $shown('/settle?received=all');
        self::assertGreaterThan(0, $all);
        self::assertSame($all, $shown('/settle'), 'few are all shown');
        $this->connection()->executeStatement(
            'UPDATE order_line l JOIN receipt_line r ON r.line_id = l.id SET l.invoiced = 0 WHERE l.received > 0',
        );
        self::assertGreaterThan(30, $shown('/settle?received=all'));
        self::assertSame(30, $shown('/settle'));
        self::assertMatchesRegularExpression('/All \d+ receipts/', $this->see('/settle')->text());
        self::assertSame(30, $shown('/settle?received=some'), 'another word asks for nothing more');
        $deposits = fn (string $path): int => $this->see($path)->filter('.list a[href*="deposit="]')->count();
        $this->connection()->executeStatement(
            "UPDATE supplier SET net_days = 30, deposit_percent = 30, instalments = ''",
        );
        $this->connection()->executeStatement("UPDATE purchase_order SET state = 'sent' WHERE sent_at IS NOT NULL");
        self::assertGreaterThan(12, $deposits('/settle?received=all'));
        self::assertStringNotContainsString('All of them', $this->text());
        self::assertSame(12, $deposits('/settle'));
        self::assertStringContainsString('All of them', $this->text());
    }

    public function testAMonthIsClosedAndTakenAwayAsItWent(): void
    {
        $this->as('iris');
        $this->post('/settle/books/accounts', ['account-stock' => '1200 Goods']);
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('1200 Goods', $page->filter('.grid-table')->first()->text());
        self::assertMatchesRegularExpression('/Both sides ([\d,.]+) \1/', $page->filter('tfoot')->text());
        $month = (string) $page->filter('.strip [name="month"]')->attr('value');
        $this->as('tam');
        $this->post('/settle/books/close', ['month' => $month]);
        self::assertResponseStatusCodeSame(403);
        $this->as('iris');
        $this->browser->submit($this->see('/settle/books')->filter('.strip form')->form());
        $this->browser->followRedirect();
        self::assertStringContainsString($month.' is closed', $this->text());
        $this->see('/settle/books/'.$month.'.csv');
        $csv = $this->browser->getInternalResponse()->getContent();
        self::assertStringContainsString('1200 Goods', $csv);
        self::assertStringContainsString('day,month,document,words,account,debit,credit,currency', $csv);
        $this->post('/settle/books/close', ['month' => $month]);
        $this->browser->followRedirect();
        self::assertStringContainsString('is closed already', $this->text());
        $this->see('/settle/books/2020-01.csv');
        self::assertResponseStatusCodeSame(404);
        $this->as('rowan');
        $form = $this->see('/settings/costs')->filter('form')->reduce(
            static fn (Crawler $one): bool => $one->filter('[name="valuing"]')->count() > 0,
        )->form();
        $form['valuing'] = 'fifo';
        $this->browser->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('are closed, with the stock at average cost: it stays so', $this->text());
    }

    private static function string(mixed $value): string
    {
        self::assertIsString($value);

        return $value;
    }
}
