<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;

/** Orders looked for, kept as views, taken out and asked about. */
final class OrderListTest extends DeskTestCase
{
    /** @return list<string> numbers of the orders shown */
    private function found(string $query): array
    {
        return $this->see('/orders?'.$query)
            ->filter('.grid-table tbody a[href^="/orders/PO-"]')
            ->each(static fn ($link): string => trim($link->text()));
    }

    /** @return iterable<string, array{string, string}> what is asked for, and a query in SQL that answers it */
    public static function filters(): iterable
    {
        $of = static fn (string $where, string $order = 'o.number'): string => 'SELECT DISTINCT o.number, o.id
            FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN order_line l ON l.order_id = o.id
            LEFT JOIN item i ON i.id = l.item_id WHERE '.$where.' ORDER BY '.$order;
        yield 'a supplier' => ['supplier=OSTREL', $of("s.code = 'OSTREL'")];
        yield 'a state' => ['state=acknowledged', $of("o.state = 'acknowledged'")];
        yield 'open ones' => ['state=open', $of("o.state NOT IN ('received', 'closed', 'cancelled')")];
        yield 'an item' => ['item=FND-WU', $of("i.code = 'FND-WU'")];
        yield 'words of a line' => ['words=thin+super', $of("l.description LIKE '%thin super%'")];
        yield 'a number' => ['words=PO-1079', $of("o.number = 'PO-1079'")];
        yield 'the supplier’s own code' => ['words=OW-FTS', $of("l.supplier_code LIKE '%OW-FTS%'")];
        yield 'overdue' => ['late=1', $of("o.id IN (SELECT order_id FROM open_line WHERE due < '2026-11-23')")];
        yield 'due in a week' => [
            'state=open&from=2026-11-24&until=2026-11-30',
            $of("o.state IN ('sent', 'acknowledged') AND COALESCE(o.promised_on, o.wanted_on)
                BETWEEN '2026-11-24' AND '2026-11-30'"),
        ];
        yield 'a supplier’s for a site' => [
            'supplier=OSTREL&site=1&state=open',
            $of("s.code = 'OSTREL' AND l.site_id = 1 AND o.state = 'sent'"),
        ];
    }

    #[DataProvider('filters')]
    public function testAFilterFindsWhatItSays(string $query, string $sql): void
    {
        $this->as('rowan');
        $expected = $this->connection()->fetchFirstColumn($sql);
        self::assertNotSame([], $expected);
        $found = $this->found($query);
        sort($found);
        self::assertSame(array_slice($expected, 0, 100), $found);
    }

    public function testTheOrderOfTheRowsTheirSumAndThePages(): void
    {
        $this->as('rowan');
        $count = (int) $this->number('SELECT COUNT(*) FROM purchase_order');
        $page = $this->see('/orders?state=all&sort=latest');
        self::assertStringStartsWith($count.' orders, €', $page->filter('.title p')->text());
        self::assertSame('PO-1082', $this->found('state=all&sort=latest')[0]);
        $dearest = $this->connection()->fetchOne(
            'SELECT o.number FROM purchase_order o JOIN order_line l ON l.order_id = o.id GROUP BY o.id
             ORDER BY SUM(ROUND(l.packs * l.price, 2)) / o.foreign_for_one DESC LIMIT 1',
        );
        self::assertSame($dearest, $this->found('state=all&sort=value')[0]);
        self::assertSame(
            array_slice($this->found('state=all&sort=latest&page=1'), 0, 3),
            array_slice($this->found('state=all&sort=latest'), 0, 3),
        );
        self::assertStringContainsString('Nothing is like that.', $this->see('/orders?words=nonsuch')->text());
        self::assertStringContainsString('“31.11.” is not a day', $this->see('/orders?from=31.11.')->text());
    }

    public function testOpenLinesAndSuppliersAgreeWithTheView(): void
    {
        $this->as('rowan');
        $lines = (int) $this->number('SELECT COUNT(*) FROM open_line');
        self::assertStringContainsString($lines.' open lines', $this->see('/orders?look=lines')->text());
        $late = (int) $this->number("SELECT COUNT(*) FROM open_line WHERE due < '2026-11-23'");
        self::assertStringContainsString($late.' open lines', $this->see('/orders?look=lines&late=1')->text());
        $file = $this->file('look=suppliers&state=open');
        self::assertSame(
            round($this->number('SELECT SUM(home_value) FROM open_line'), 1),
            round(array_sum(array_map(floatval(...), array_column(array_slice($file, 1), 4))), 1),
        );
    }

    /** @return list<list<string|null>> */
    private function file(string $query): array
    {
        $this->browser->request('GET', '/orders.csv?'.$query);
        self::assertResponseIsSuccessful();
        $lines = explode("\n", trim((string) $this->browser->getResponse()->getContent(), "\u{feff}\r\n"));

        return array_map(static fn (string $line): array => str_getcsv(trim($line), ',', '"', ''), $lines);
    }

    public function testWhatIsShownCanBeTakenOut(): void
    {
        $this->as('rowan');
        $orders = $this->file('state=acknowledged');
        self::assertSame(
            ['order', 'supplier', 'state', 'wanted', 'due', 'lines', 'buyer', 'goods', 'currency'],
            $orders[0],
        );
        self::assertSame($this->found('state=acknowledged'), array_column(array_slice($orders, 1), 0));
        self::assertCount(1 + (int) $this->number('SELECT COUNT(*) FROM open_line'), $this->file('look=lines'));
    }

    public function testAViewIsKeptUnderANameAndLetGo(): void
    {
        $this->as('mara');
        $this->post('/orders/views', ['name' => 'Late wax', 'query' => 'supplier=OSTREL&late=1&evil=1']);
        self::assertResponseRedirects('/orders?supplier=OSTREL&late=1');
        $link = $this->see('/orders')->filter('.menu a:contains("Late wax")');
        self::assertSame('/orders?supplier=OSTREL&late=1', $link->attr('href'));
        $this->post('/orders/views', ['name' => 'Late wax', 'query' => 'supplier=OSTREL']);
        self::assertSame(1.0, $this->number("SELECT COUNT(*) FROM kept_view WHERE name = 'Late wax'"), 'in its place');
        $this->post('/orders/views', ['name' => '', 'query' => '']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Give the view a name.', $this->text());
        $this->as('rowan');
        self::assertCount(0, $this->see('/orders')->filter('.menu a:contains("Late wax")'), 'hers alone');
        $id = (int) $this->number("SELECT id FROM kept_view WHERE name = 'Late wax'");
        $this->post('/orders/views/'.$id.'/go');
        self::assertSame(1.0, $this->number('SELECT COUNT(*) FROM kept_view WHERE id = ?', [$id]));
        $this->as('mara');
        $this->post('/orders/views/'.$id.'/go');
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM kept_view WHERE id = ?', [$id]));
    }

    public function testWhatIsShownIsTakenAwayOnPaper(): void
    {
        $this->as('rowan');
        $this->browser->request('GET', '/orders.pdf?supplier=OSTREL');
        self::assertResponseHeaderSame('Content-Type', 'application/pdf');
        $paper = (string) tempnam(sys_get_temp_dir(), 'paper');
        file_put_contents($paper, $this->browser->getResponse()->getContent());
        $words = (string) shell_exec('pdftotext -layout '.escapeshellarg($paper).' -');
        unlink($paper);
        self::assertStringContainsString('PO-1079', $words);
        self::assertStringContainsString('Ostrel Wax', $words);
        self::assertStringNotContainsString('Vetrasol', $words);
    }

    public function testSuppliersAreAskedOnceADayAndItIsCounted(): void
    {
        $this->as('mara');
        $id = static fn (self $test, string $number): int => (int) $test->number(
            'SELECT id FROM purchase_order WHERE number = ?',
            [$number],
        );
        $ask = [$id($this, 'PO-1045') => '1', $id($this, 'PO-1082') => '1'];
        $this->post('/orders/ask', ['query' => 'late=1', 'ask' => $ask]);
        self::assertResponseRedirects('/orders?late=1');
        $this->browser->followRedirect();
        self::assertStringContainsString('Asked about PO-1045.', $this->text());
        self::assertStringContainsString('PO-1082 is draft; nothing is to come on it.', $this->text());
        $this->post('/orders/ask', ['ask' => [$id($this, 'PO-1045') => '1']]);
        $this->browser->followRedirect();
        self::assertStringContainsString('They were asked about PO-1045 today already.', $this->text());
        $this->connection()->executeStatement(
            "UPDATE audit_entry SET at = '2026-11-20 10:00:00' WHERE words LIKE 'Asked where it is%'",
        );
        $this->entities()->clear();
        $this->post('/orders/ask', ['ask' => [$id($this, 'PO-1045') => '1']]);
        self::assertStringContainsString(
            'Asked where it is once more; 1 times before',
            $this->see('/orders/PO-1045')->text(),
        );
        self::assertStringContainsString('we asked before, and ask once more', $this->see('/mailbox')->text());
        $this->post('/orders/ask', []);
        $this->browser->followRedirect();
        self::assertStringContainsString('Tick the orders that are meant.', $this->text());
    }

    public function testAYesNotedByMistakeIsTakenBackUntilSomethingHasCome(): void
    {
        $this->as('mara');
        $take = function (string $number): string {
            $version = (string) $this->number('SELECT version FROM purchase_order WHERE number = ?', [$number]);
            $this->post('/orders/'.$number.'/unconfirmed', ['version' => $version]);

            return $this->see('/orders/'.$number)->text();
        };
        $id = (int) $this->number("SELECT id FROM purchase_order WHERE number = 'PO-1079'");
        $this->post('/orders/ask', ['do' => 'confirm', 'ask' => [$id => '1']]);
        self::assertStringContainsString('counts as not confirmed again', $take('PO-1079'));
        self::assertSame(
            'sent',
            $this->connection()->fetchOne(
                "SELECT state FROM purchase_order WHERE number = 'PO-1079' AND promised_on IS NULL",
            ),
        );
        self::assertStringContainsString('there is no yes of theirs to take back', $take('PO-1079'));
    }

    public function testSeveralAreClosedShortWithWhoAgreed(): void
    {
        $this->as('mara');
        $ids = array_map(
            fn (string $number): int => (int) $this->number(
                'SELECT id FROM purchase_order WHERE number = ?',
                [$number],
            ),
            ['PO-1045', 'PO-1079', 'PO-1082'],
        );
        $ask = ['do' => 'close', 'ask' => array_fill_keys($ids, '1')];
        $this->post('/orders/ask', $ask);
        $this->browser->followRedirect();
        self::assertStringContainsString('Who agreed that the rest does not come?', $this->text());
        $this->post('/orders/ask', $ask + ['agreed' => 'Ilse']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Closed, the rest does not come: PO-1045, PO-1079.', $this->text());
        self::assertStringContainsString('PO-1082 is draft', $this->text());
        self::assertStringContainsString('agreed with Ilse', $this->see('/orders/PO-1045')->text());
    }

    public function testSeveralAreAcknowledgedAsWantedInOneStroke(): void
    {
        $this->as('mara');
        $ids = array_map(
            static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0,
            $this->connection()->fetchFirstColumn("SELECT id FROM purchase_order WHERE state = 'sent' ORDER BY id"),
        );
        self::assertGreaterThan(1, count($ids));
        $this->post('/orders/ask', ['do' => 'confirm', 'ask' => array_fill_keys($ids, '1')]);
        $this->browser->followRedirect();
        self::assertStringContainsString('Acknowledged as wanted: PO-10', $this->text());
        self::assertStringContainsString('PO-1045 was wanted for Fri 2 Oct, which is over', $this->text());
        self::assertSame(
            ['PO-1045'],
            $this->connection()->fetchFirstColumn("SELECT number FROM purchase_order WHERE state = 'sent'"),
        );
        self::assertSame(
            1.0,
            $this->number("SELECT promised_on = wanted_on FROM purchase_order WHERE number = 'PO-1079'"),
        );
    }

    public function testAnEmailThatChangedSinceTheLastOrderIsNamedBeforeTheNextGoes(): void
    {
        $this->as('rowan');
        $send = function (string $email): void {
            $this->post('/orders/new', ['supplier' => 'LUMEN', 'item' => 'BOT-500S']);
            $path = explode('?', (string) $this->browser->getResponse()->headers->get('Location'))[0];
            /** @var array<string, mixed> $form */
            $form = $this->see($path)->filter('#order')->form()->getPhpValues();
            unset($form['_token']);
            $this->post($path, ['email' => $email, 'do' => 'send'] + $form);
        };
        $send('old@lumen.example');
        $this->connection()->executeStatement(
            "UPDATE supplier_contact SET email = 'new@lumen.example' WHERE email = 'old@lumen.example'",
        );
        $this->entities()->clear();
        self::assertStringContainsString('Email was old@lumen.example on PO-', $this->see('/orders/PO-1082')->text());
    }
}
