<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Desk\Shell\Finder;

final class StockTest extends DeskTestCase
{
    public function testTheListIsFilteredAndGoesOnAsOneScrolls(): void
    {
        $this->as('tam');
        $rows = $this->see('/stock')->filter('#stock-rows > tr');
        self::assertCount(61, $rows, 'sixty items and the one that fetches more');
        $more = (string) $rows->last()->attr('hx-get');
        $this->browser->request('GET', $more, [], [], ['HTTP_HX-Request' => 'true']);
        self::assertStringNotContainsString('<html', (string) $this->browser->getResponse()->getContent());
        self::assertCount(6, $this->see('/stock?q=Hex+jar')->filter('#stock-rows > tr'));
        $this->see('/stock?q=100%25_nothing');
        self::assertStringContainsString('No item has “100%_nothing”', $this->text());
    }

    public function testAnItemShowsWhatTheLedgerHolds(): void
    {
        $this->as('tam');
        $page = $this->see('/items/MED-VS10');
        $held = $this->number(
            "SELECT SUM(quantity) FROM stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
                WHERE i.code = 'MED-VS10' AND s.code = 'DEPOT'",
        );
        self::assertStringContainsString(
            number_format($held).' pcs',
            $page->filter('.grid-cols-3 > a')->first()->text(),
        );
        self::assertStringContainsString('use by', $page->text());
        self::assertCount(1, $page->filter('svg[aria-label="Weekly sales and forecast"]'));
        $this->see('/items/NONSUCH');
        self::assertResponseStatusCodeSame(404);
        self::assertStringContainsString('There is no item NONSUCH', $this->text());
    }

    public function testOneSiteIsWorthLessThanAll(): void
    {
        $this->as('tam');
        $value = fn (): int => (int) str_replace(
            ',',
            '',
            (string) preg_replace('/^€([\d,]+) .*/', '$1', $this->see('/stock')->filter('.title p')->text()),
        );
        $all = $value();
        $sum = 0;
        foreach (['DEPOT', 'FERRY', 'MILL'] as $site) {
            $this->post('/look-at', [
                'site' => (string) (int) $this->number('SELECT id FROM site WHERE code = ?', [$site]),
            ]);
            $one = $value();
            self::assertLessThan($all, $one);
            $sum += $one;
        }
        self::assertEqualsWithDelta($all, $sum, 3);
    }

    public function testFindsByCodeNameGtinAndNumberTheNearestFirst(): void
    {
        $finder = self::getContainer()->get(Finder::class);
        self::assertInstanceOf(Finder::class, $finder);
        $gtin = $this->connection()->fetchOne("SELECT gtin FROM item WHERE code = 'JAR-340R'");
        self::assertIsString($gtin);
        foreach (
            [
                'jar-340r' => 'JAR-340R',
                'round honey jar 340' => 'JAR-340R',
                $gtin => 'JAR-340R',
                'PO-1077' => 'PO-1077',
                'ilmost' => null,
                'Ostrel' => 'OSTREL',
            ] as $words => $code
        ) {
            self::assertSame($code, $finder->find($words)[0]['code'] ?? null);
        }
        self::assertSame([], $finder->find(''));
        self::assertSame([], $finder->find('%'), 'a wildcard is a letter like any other');
        self::assertLessThanOrEqual(12, count($finder->find('a')));
    }

    public function testTheCatalogueSaysWhatAnItemLacks(): void
    {
        $this->as('iris');
        foreach (
            ['BOT-250P' => 'no code of theirs', 'JAR-340R' => 'ready to order', 'TIL' => 'used'] as $code => $words
        ) {
            self::assertStringContainsString(
                $words,
                $this->see('/items?q='.$code)
                    ->filter('#item-rows')
                    ->text(),
            );
        }
        $this->connection()->executeStatement(
            "DELETE b FROM price_break b JOIN offer o ON o.id = b.offer_id JOIN item i ON i.id = o.item_id
                WHERE i.code = 'USE-TIL'",
        );
        $this->connection()->executeStatement(
            "UPDATE proposal SET offer_id = NULL WHERE item_id = (SELECT id FROM item WHERE code = 'USE-TIL')",
        );
        $this->connection()->executeStatement(
            "UPDATE order_line SET offer_id = NULL WHERE item_id = (SELECT id FROM item WHERE code = 'USE-TIL')",
        );
        $this->connection()->executeStatement(
            "DELETE o FROM offer o JOIN item i ON i.id = o.item_id WHERE i.code = 'USE-TIL'",
        );
        self::assertStringContainsString(
            'nobody sells it',
            $this->see('/items?q=USE-TIL')->filter('#item-rows')->text(),
        );
        $this->see('/items/USE-TIL');
        self::assertStringContainsString('Nobody yet. Add an offer', $this->text());
    }

    public function testSuppliersSayWhatIsMissingBeforeOrdering(): void
    {
        $this->as('iris');
        $rows = $this->see('/suppliers')->filter('tr[data-words]')->each(static fn ($row): string => $row->text());
        $of = static fn (string $name): string => array_values(
            array_filter($rows, static fn (string $row): bool => str_contains($row, $name)),
        )[0];
        self::assertStringContainsString('no contact, no email', $of('Quillbar'));
        self::assertStringContainsString('no address', $of('Fenwhistle'));
        self::assertStringContainsString('ready to order', $of('Vetrasol'));
    }

    public function testSlowAndOverAreListsWithTheirMoneyDearestFirst(): void
    {
        $this->as('iris');
        foreach (['slow', 'over'] as $show) {
            $page = $this->see('/stock?show='.$show);
            $worth = $page->filter('#stock-rows tr td:last-child')->each(
                static fn ($cell): float => (float) str_replace(['€', ','], '', $cell->text()),
            );
            self::assertNotSame([], $worth);
            $sorted = $worth;
            rsort($sorted);
            self::assertSame($sorted, $worth, 'dearest first');
            $link = $page->filter('main nav a[aria-current]')->text();
            $said = (float) str_replace(',', '', (string) preg_replace('/.*€/u', '', $link));
            self::assertEqualsWithDelta($said, array_sum($worth), 0.5 + 0.005 * count($worth), $link);
        }
    }

    public function testTheStockToComeIsATableAndAFile(): void
    {
        $this->as('iris');
        /** @var array{code: string, site: string, number: string, units: string}|false $coming */
        $coming = $this->connection()->fetchAssociative(
            "SELECT i.code, s.code site, l.number, l.units FROM open_line l JOIN item i ON i.id = l.item_id
                JOIN site s ON s.id = l.site_id JOIN proposal p ON p.item_id = l.item_id AND p.site_id = l.site_id
                WHERE l.due > '2026-11-25' ORDER BY l.id LIMIT 1",
        );
        self::assertIsArray($coming);
        $path = sprintf('/items/%s/%s/days', $coming['code'], $coming['site']);
        $this->see($path);
        self::assertStringContainsString($coming['number'], $this->text());
        $this->see($path.'.csv');
        $rows = array_map(
            static fn (string $line): array => str_getcsv($line, ',', '"', ''),
            explode("\r\n", trim((string) $this->browser->getResponse()->getContent())),
        );
        self::assertSame('day', $rows[0][0]);
        $in = array_filter(
            $rows,
            static fn (array $row): bool => str_contains((string) $row[5], $coming['number']),
        );
        self::assertCount(1, $in);
        self::assertGreaterThanOrEqual((float) $coming['units'], (float) array_values($in)[0][1]);
        $at = array_key_first($in);
        self::assertEqualsWithDelta(
            (float) $rows[$at - 1][3] + (float) $rows[$at][1] - (float) $rows[$at][2],
            (float) $rows[$at][3],
            0.02,
            'what was left, and came, less what went',
        );
    }

    public function testUseByMonthAddsUpToWhatTheLedgerOfSalesSays(): void
    {
        $this->as('iris');
        $page = $this->see('/items/JAR-340R/DEPOT/use');
        $year = $page->filter('tbody tr:last-child td:last-child')->text();
        self::assertEqualsWithDelta(
            $this->number(
                "SELECT SUM(quantity) FROM sales_day WHERE day >= '2026-01-01' AND item_id = (SELECT id FROM item
                    WHERE code = 'JAR-340R') AND site_id = (SELECT id FROM site WHERE code = 'DEPOT')",
            ),
            (float) str_replace(',', '', $year),
            0.05,
        );
        $this->see('/items/JAR-340R/NOWHERE/use');
        self::assertResponseStatusCodeSame(404);
    }
}
