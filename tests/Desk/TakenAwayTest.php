<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;

/** Lists that are looked at by day, by supplier or by item, taken away as files, and files that are put right here. */
final class TakenAwayTest extends DeskTestCase
{
    /** @return list<array<string, string>> rows of the file that was answered, by column */
    private function rows(): array
    {
        self::assertResponseIsSuccessful();
        self::assertStringContainsString(
            'attachment',
            (string) $this->browser->getResponse()->headers->get('Content-Disposition'),
        );
        $content = (string) $this->browser->getResponse()->getContent();
        $lines = array_map(
            static fn (string $line): array => str_getcsv($line, ',', '"', ''),
            explode("\n", trim(ltrim($content, "\u{feff}"))),
        );
        $columns = array_map(strval(...), array_shift($lines) ?? []);

        return array_map(
            static fn (array $cells): array => array_combine($columns, array_map(strval(...), $cells)),
            $lines,
        );
    }

    public function testTheStockOfADayAddsUpToItsWorth(): void
    {
        $this->as('rowan');
        $this->see('/stock/worth.csv?day=2026-11-23');
        $rows = $this->rows();
        self::assertSame(
            ['code', 'name', 'category', 'unit', 'site', 'state', 'lot', 'units', 'cost', 'value'],
            array_keys($rows[0]),
        );
        $worth = 0.0;
        foreach ($rows as $row) {
            self::assertEqualsWithDelta((float) $row['units'] * (float) $row['cost'], (float) $row['value'], 0.02);
            $worth += (float) $row['value'];
        }
        self::assertEqualsWithDelta(
            $this->number(
                'SELECT SUM(b.quantity * i.average_cost) FROM stock_balance b JOIN item i ON i.id = b.item_id',
            ),
            $worth,
            0.01 * count($rows),
        );
        $this->see('/stock/worth.xlsx');
        self::assertResponseIsSuccessful();
        self::assertStringStartsWith('PK', (string) $this->browser->getResponse()->getContent());
    }

    /** @return \Generator<string, array{string, string}> */
    public static function wrongDays(): \Generator
    {
        yield 'to come' => ['2026-11-24', '24 Nov 2026 is a day to come.'];
        yield 'none' => ['2026-02-30', '2026-02-30'];
        yield 'words' => ['yesterday', 'yesterday'];
    }

    #[DataProvider('wrongDays')]
    public function testADayThatCannotBeIsSaid(string $day, string $words): void
    {
        $this->as('rowan');
        $this->see('/stock/worth?day='.$day);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($words, $this->text());
        $this->see('/stock/worth.csv?day='.$day);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($words, (string) $this->browser->getResponse()->getContent());
    }

    public function testACategoryOpensToItsItemsAndAnUnknownOneToNothing(): void
    {
        $this->as('rowan');
        $category = $this->connection()->fetchOne(
            'SELECT i.category FROM stock_balance b JOIN item i ON i.id = b.item_id
                WHERE b.quantity > 0 GROUP BY i.category ORDER BY SUM(b.quantity * i.average_cost) DESC LIMIT 1',
        );
        self::assertIsString($category);
        $code = $this->connection()->fetchOne(
            'SELECT i.code FROM stock_balance b JOIN item i ON i.id = b.item_id
                WHERE i.category = ? AND b.quantity > 0 ORDER BY b.quantity * i.average_cost DESC LIMIT 1',
            [$category],
        );
        self::assertIsString($code);
        $this->see('/stock/worth?category='.urlencode($category));
        self::assertResponseIsSuccessful();
        self::assertStringContainsString($code, $this->text());
        $this->see('/stock/worth?category=nothing+of+ours');
        self::assertResponseIsSuccessful();
        self::assertStringNotContainsString($code, $this->text());
    }

    public function testWhoSeesOneSiteTakesThatSiteAway(): void
    {
        $mill = (int) $this->number("SELECT id FROM site WHERE code = 'MILL'");
        $this->connection()->executeStatement(
            "UPDATE person SET seen_sites = ? WHERE email = 'mara@larkmoor.example'",
            [json_encode([$mill], \JSON_THROW_ON_ERROR)],
        );
        $this->entities()->clear();
        $this->as('mara');
        $this->see('/stock/worth.csv');
        $sites = array_values(array_unique(array_column($this->rows(), 'site')));
        self::assertSame(
            [$this->connection()->fetchOne("SELECT name FROM site WHERE code = 'MILL'")],
            array_map(static fn (string $site): string => $site, $sites),
        );
    }

    public function testReceiptsAreTakenAwayAsTheyAreFound(): void
    {
        $this->as('tam');
        $this->see('/dock/receipts.csv');
        $all = $this->rows();
        self::assertCount((int) $this->number('SELECT COUNT(*) FROM receipt_line'), $all);
        $supplier = $all[0]['supplier'];
        $number = $all[0]['receipt'];
        $this->see('/dock/receipts.csv?words='.urlencode($number));
        $some = $this->rows();
        self::assertSame([$number], array_values(array_unique(array_column($some, 'receipt'))));
        self::assertSame([$supplier], array_values(array_unique(array_column($some, 'supplier'))));
        self::assertLessThan(count($all), count($some));
        self::assertEqualsWithDelta(
            $this->number(
                'SELECT SUM(l.packs) FROM receipt_line l JOIN receipt r ON r.id = l.receipt_id WHERE r.number = ?',
                [$number],
            ),
            array_sum(array_map(floatval(...), array_column($some, 'packs'))),
            1e-6,
        );
    }

    public function testAFieldOfOurOwnStandsInTheReceiptsFile(): void
    {
        $this->as('rowan');
        $this->see('/dock/receipts.csv');
        $number = $this->rows()[0]['receipt'];
        $delivery = (int) $this->number('SELECT delivery_id FROM receipt WHERE number = ?', [$number]);
        $this->connection()->executeStatement(
            "INSERT INTO own_field (thing, label, kind, on_paper, choices, given_up)
                VALUES ('delivery', 'Seal number', 'text', 0, '[]', 0)",
        );
        $field = (int) $this->connection()->lastInsertId();
        $this->connection()->executeStatement(
            'INSERT INTO own_value (field_id, thing, content) VALUES (?, ?, ?)',
            [$field, $delivery, 'S-77'],
        );
        $this->connection()->executeStatement("UPDATE business SET own_things = '[\"delivery\"]'");
        $this->entities()->clear();
        $this->see('/dock/receipts.csv?words='.urlencode($number));
        self::assertSame(['S-77'], array_values(array_unique(array_column($this->rows(), 'Seal number'))));
    }

    public function testWhatWasOrderedBilledAndPaidIsSeenByOrderReceiptSupplierAndItem(): void
    {
        $this->as('iris');
        $row = $this->connection()->fetchAssociative(
            'SELECT o.number, s.code supplier, i.code item, r.number receipt FROM invoice_line n
                JOIN order_line l ON l.id = n.order_line_id JOIN purchase_order o ON o.id = l.order_id
                JOIN supplier s ON s.id = o.supplier_id JOIN item i ON i.id = l.item_id
                JOIN receipt_line x ON x.line_id = l.id JOIN receipt r ON r.id = x.receipt_id
                WHERE o.sent_at IS NOT NULL ORDER BY n.id LIMIT 1',
        );
        self::assertIsArray($row);
        foreach (['order', 'supplier', 'item', 'receipt'] as $of) {
            $which = $row['order' === $of ? 'number' : $of];
            self::assertIsString($which);
            self::assertIsString($row['number']);
            $this->see('/settle/history/'.$of.'/'.rawurlencode($which));
            self::assertResponseIsSuccessful();
            self::assertStringContainsString($row['number'], $this->text(), $of);
        }
        $this->see('/settle/history/order/PO-NONE');
        self::assertResponseIsSuccessful();
        $this->see('/settle/history/person/rowan');
        self::assertResponseStatusCodeSame(404);
    }

    public function testLandedCostIsSeenBySupplierItemAndReceiptOverAsManyDaysAsOneLikes(): void
    {
        $this->as('iris');
        foreach (['supplier', 'item', 'receipt'] as $by) {
            foreach ([92, 183, 365] as $days) {
                $this->see(sprintf('/settle/landed?by=%s&days=%d', $by, $days));
                self::assertResponseIsSuccessful();
            }
        }
        $this->see('/settle/landed?by=moon&days=7');
        self::assertResponseIsSuccessful();
    }

    public function testAWrongCellIsPutRightHereAndTheRestOfItsRowStays(): void
    {
        $this->as('rowan');
        $run = $this->bringOwnData(
            'sales',
            "item,site,day,quantity\nJAR-340R,MILL,2022-02-01,31\nJAR-340R,MILL,2022-02-02,x\n",
        );
        $this->see($run.'/bad.csv');
        [$bad] = $this->rows();
        self::assertSame(['JAR-340R', 'MILL', '2022-02-02', 'x'], array_slice(array_values($bad), 0, 4));
        self::assertStringContainsString('not a number', implode(' ', $bad));
        $this->post($run.'/read', ['cell' => [3 => ['quantity' => ' 12 ']]]);
        self::assertResponseRedirects($run);
        $this->browser->followRedirect();
        self::assertStringNotContainsString('cannot be used', $this->text());
        $this->post($run);
        self::assertSame(12.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-02-02'"));
        self::assertSame(31.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-02-01'"));
    }

    public function testColumnsOfOtherNamesAreSaidToBeOurs(): void
    {
        $this->as('rowan');
        $run = $this->bringOwnData('sales', "item,where it was,when,pieces\nJAR-340R,MILL,2022-03-01,7\n");
        $this->post($run.'/read', [
            'heading' => ['item', 'where it was', 'when', 'pieces'],
            'column' => ['item', 'site', 'day', 'quantity'],
        ]);
        $this->browser->followRedirect();
        $this->post($run);
        self::assertSame(7.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-03-01'"));
    }

    public function testTheDecimalMarkOfAFileIsSaidWhereItCouldBeTwo(): void
    {
        $this->as('rowan');
        $run = $this->bringOwnData('sales', "item;site;day;quantity\nJAR-340R;MILL;2022-04-01;1,250\n");
        $this->post($run.'/read', ['mark' => ',']);
        $this->browser->followRedirect();
        $this->post($run);
        self::assertSame(1.25, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-04-01'"));
        $run = $this->bringOwnData('sales', "item;site;day;quantity\nJAR-340R;MILL;2022-04-02;1,250\n");
        $this->post($run.'/read', ['mark' => '.']);
        $this->browser->followRedirect();
        $this->post($run);
        self::assertSame(1250.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-04-02'"));
    }

    public function testAFileThatIsInIsNotReadAgain(): void
    {
        $this->as('rowan');
        $run = $this->bringOwnData('sales', "item,site,day,quantity\nJAR-340R,MILL,2022-05-01,31\n");
        $this->post($run);
        $this->post($run.'/read', ['mark' => ',']);
        $this->browser->followRedirect();
        self::assertStringContainsString('This file has been settled already; bring it again.', $this->text());
    }

    public function testTabsBetweenColumnsAreNamedAsBlanks(): void
    {
        $this->as('rowan');
        $run = $this->bringOwnData('sales', "item\tsite\tday\tquantity\nJAR-340R\tMILL\t2022-06-01\t9\n");
        $this->post($run.'/read', ['delimiter' => 'blank']);
        $this->browser->followRedirect();
        $this->post($run);
        self::assertSame(9.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-06-01'"));
    }

    /** @return \Generator<string, array{string, string}> */
    public static function lists(): \Generator
    {
        yield 'items' => ['items', 'SELECT COUNT(*) FROM item'];
        yield 'suppliers' => ['suppliers', 'SELECT COUNT(*) FROM supplier'];
        yield 'sites' => ['sites', 'SELECT COUNT(*) FROM site'];
    }

    #[DataProvider('lists')]
    public function testAllThereIsIsTakenAwayAndBroughtAgainChangesNothing(string $kind, string $counted): void
    {
        $this->as('rowan');
        $this->see('/own-data/'.$kind.'/all.csv');
        $content = (string) $this->browser->getResponse()->getContent();
        $rows = $this->rows();
        $count = $this->number($counted);
        self::assertCount((int) $count, $rows);
        $run = $this->bringOwnData($kind, $content);
        $this->browser->followRedirect();
        self::assertStringNotContainsString('cannot be used', $this->text());
        $this->post($run);
        self::assertSame($count, $this->number($counted));
        $this->see('/own-data/'.$kind.'/all.csv');
        self::assertSame($rows, $this->rows());
    }

    public function testAListThatIsNoneIsNotFound(): void
    {
        $this->as('rowan');
        foreach (['/own-data/moons/all.csv', '/own-data/moons/sample.csv'] as $path) {
            $this->see($path);
            self::assertResponseStatusCodeSame(404, $path);
        }
    }

    public function testRatesAreBroughtByAnOwnerOnly(): void
    {
        $this->as('mara');
        $this->post('/own-data/rates');
        self::assertResponseStatusCodeSame(403);
    }
}
