<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

final class TodayTest extends DeskTestCase
{
    /** @return list<array{string, string, string}> title, words, where it leads */
    private function entries(): array
    {
        return $this->see('/')
            ->filter('.wait')
            ->each(
                static fn ($row): array => [
                    trim($row->filter('.mark')->ancestors()->first()->text()),
                    $row->filter('.text-ink-2')->text(),
                    (string) $row->filter('a.btn')->attr('href'),
                ],
            );
    }

    public function testEachEntryLeadsStraightToWhereItIsSettled(): void
    {
        $this->as('rowan');
        $entries = $this->entries();
        self::assertGreaterThan(4, count($entries));
        foreach ($entries as [$title, , $address]) {
            $this->see($address);
            self::assertResponseIsSuccessful($title.' leads to '.$address);
        }
    }

    public function testTheCountInTheRunIsThatOfTheList(): void
    {
        $this->as('rowan');
        $entries = $this->entries();
        self::assertSame(
            (string) count($entries),
            $this->browser->getCrawler()->filter('.stage[aria-current] b')->text(),
        );
        self::assertStringStartsWith(
            count($entries).' things need you',
            $this->browser->getCrawler()->filter('.title p')->text(),
        );
    }

    public function testWhatIsForTodayStandsAboveWhatIsNot(): void
    {
        $this->as('rowan');
        $page = $this->see('/');
        $watched = $page->filter('.wait')->each(
            static fn ($row): bool => $row->filter('.mark.watch')->count() > 0,
        );
        $sorted = $watched;
        sort($sorted);
        self::assertSame($sorted, $watched);
        $urgent = count(array_filter($watched, static fn (bool $watch): bool => !$watch));
        self::assertGreaterThan(1, count($watched) - $urgent);
        self::assertStringContainsString(sprintf('the first %d today', $urgent), $page->filter('.title p')->text());
    }

    public function testWhatIsLateForgottenAndUnansweredIsThere(): void
    {
        $this->as('rowan');
        $titles = array_column($this->entries(), 0);
        self::assertContains('3 days late', $titles);
        self::assertContains('52 days late, forgotten?', $titles);
        self::assertContains('Awaiting approval', $titles);
        self::assertContains('A customer is waiting', $titles);
        self::assertNotSame(
            [],
            array_filter($titles, static fn (string $title): bool => str_ends_with($title, 'not acknowledged')),
        );
    }

    public function testWhatIsSettledGoesAway(): void
    {
        $this->as('rowan');
        $version = $this->see('/orders/PO-1045')->filter('.menu form input[name="version"]')->attr('value');
        $this->post('/orders/PO-1045/cancel', ['version' => $version, 'reason' => 'It never came.']);
        self::assertNotContains('52 days late, forgotten?', array_column($this->entries(), 0));
        self::assertSame(
            'cancelled',
            $this->connection()->fetchOne("SELECT state FROM purchase_order WHERE number = 'PO-1045'"),
        );
    }

    public function testALotAboutToExpireIsShown(): void
    {
        $this->connection()->executeStatement(
            "UPDATE lot l JOIN item i ON i.id = l.item_id SET l.expires_on = '2026-11-25' WHERE i.code = 'FEED-POL'",
        );
        $this->as('rowan');
        $words = implode(' ', array_column($this->entries(), 1));
        self::assertMatchesRegularExpression(
            '/Pollen substitute at \w+.*, lot \w+, use by 25 Nov: \d+ of \d+ kg will be left/',
            $words,
        );
    }

    public function testEveryShortageIsCountedAndTheRestLeadsToTheBoard(): void
    {
        $this->as('rowan');
        $all = $this->number('SELECT COUNT(*) FROM proposal WHERE draft_id IS NULL AND out_in_days IS NOT NULL');
        self::assertGreaterThan(5.0, $all);
        $money = $this->number(
            'SELECT SUM(sales_at_risk) FROM (SELECT sales_at_risk FROM proposal WHERE draft_id IS NULL
                AND out_in_days IS NOT NULL ORDER BY reason = \'rush\' DESC, sales_at_risk DESC, id
                LIMIT 99 OFFSET 4) rest',
        );
        $page = $this->see('/');
        $more = $page->filter('.wait:contains("more will run out before a delivery")');
        self::assertStringContainsString(sprintf('%d more', (int) $all - 4), $more->text());
        self::assertStringContainsString(number_format($money), $more->text());
        $this->browser->click($more->filter('a')->link());
        self::assertStringContainsString(
            (string) $this->number(
                'SELECT COUNT(*) FROM proposal WHERE draft_id IS NULL AND listed = 1 AND out_in_days IS NOT NULL',
            ),
            $this->browser->getCrawler()->filter('.title')->text(),
        );
    }

    public function testTheStripLeadsToTheFirstThingItself(): void
    {
        $this->as('rowan');
        $page = $this->see('/');
        self::assertSame(
            $page->filter('.wait a.btn')->first()->attr('href'),
            $page->filter('.strip [data-next]')->attr('href'),
        );
    }

    public function testEveryPageLetsOneSkipToItsWork(): void
    {
        $this->as('rowan');
        foreach (['/', '/reorder', '/orders/PO-1082', '/dock', '/stock', '/policies', '/settings/budget'] as $path) {
            $page = $this->see($path);
            self::assertSame('#work', $page->filter('body > a')->first()->attr('href'), $path);
            self::assertCount(1, $page->filter('main#work[tabindex="-1"]'), $path);
        }
    }

    public function testAnItemOnItsWayIsNoShortage(): void
    {
        $this->as('rowan');
        $short = $this->connection()->fetchAssociative(
            "SELECT p.id, p.item_id, p.site_id FROM proposal p WHERE p.out_in_days IS NOT NULL AND p.reason <> 'rush'
                AND p.draft_id IS NULL ORDER BY p.sales_at_risk DESC LIMIT 1",
        );
        self::assertIsArray($short);
        $line = $this->number(
            "SELECT l.id FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.state = 'sent'
                ORDER BY l.id LIMIT 1",
        );
        $this->connection()->executeStatement(
            'UPDATE order_line SET item_id = ?, site_id = ?, packs = 99999 WHERE id = ?',
            [$short['item_id'], $short['site_id'], $line],
        );
        $this->connection()->executeStatement(
            "UPDATE purchase_order o JOIN order_line l ON l.order_id = o.id SET o.promised_on = '2026-11-24'
                WHERE l.id = ?",
            [$line],
        );
        $this->connection()->executeStatement('INSERT INTO moved_item (item_id) VALUES (?)', [$short['item_id']]);
        $this->work();
        self::assertSame(
            0.0,
            $this->number('SELECT COUNT(*) FROM proposal WHERE id = ? AND out_in_days IS NOT NULL', [$short['id']]),
        );
    }

    public function testABusinessWithoutAnythingIsSaidKindly(): void
    {
        foreach (
            [
                'DELETE FROM proposal',
                'DELETE FROM customer_promise',
                "UPDATE purchase_order SET state = 'closed'",
                'UPDATE lot SET expires_on = NULL',
                'DELETE FROM sales_day',
                'DELETE FROM invoice',
                'UPDATE agreement SET ended = 1',
                "UPDATE price_list SET state = 'left'",
                "UPDATE transfer SET state = 'arrived'",
            ] as $statement
        ) {
            $this->connection()->executeStatement($statement);
        }
        $this->as('rowan');
        self::assertSame([], $this->entries());
        self::assertStringContainsString('Nothing needs you right now', $this->text());
        foreach (
            [
                '/reorder' => 'Nothing is due',
                '/dock' => 'Nothing is on its way',
                '/orders' => 'No orders here',
            ] as $page => $words
        ) {
            $this->see($page);
            self::assertStringContainsString($words, $this->text());
        }
    }

    public function testWhatIsToBePaidFollowsTheTermsNotTheDelivery(): void
    {
        $this->as('iris');
        // One open order of 1,000 without tax on it, 21 % tax, due on Fri 27 Nov; all others are not here.
        $order = $this->number("SELECT MIN(order_id) FROM open_line WHERE due > '2026-11-24'");
        $this->connection()->executeStatement("UPDATE purchase_order SET state = 'closed' WHERE id <> ?
            AND state IN ('sent', 'acknowledged', 'part-received')", [$order]);
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET promised_on = '2026-11-27', tax_percent = 21, foreign_for_one = 1 WHERE id = ?",
            [$order],
        );
        $goods = $this->number('SELECT SUM((packs - received - closed_short) * price) FROM order_line
            WHERE order_id = ?', [
            $order,
        ]);
        $paid = function (string $terms) use ($order, $goods): array {
            $this->connection()->executeStatement(
                'UPDATE supplier SET end_of_month = 0, discount_percent = 0, discount_days = 0, deposit_percent = 0,
                    instalments = \'\', '.$terms.' WHERE id = (SELECT supplier_id FROM purchase_order WHERE id = ?)',
                [$order],
            );
            $spending = self::getContainer()->get(\TallBarrel\Store\Order\Spending::class);
            self::assertInstanceOf(\TallBarrel\Store\Order\Spending::class, $spending);
            $today = new \DateTimeImmutable('2026-11-25');

            return array_map(
                static fn (float $sum): float => round($sum / (1.21 * $goods), 2),
                $spending->overview($today, $today, 5)->dueByWeek,
            );
        };
        self::assertSame(['2026-12-21' => 1.0], $paid('net_days = 30'));
        self::assertSame(['2026-12-28' => 1.0], $paid('net_days = 30, end_of_month = 1'));
        self::assertSame(
            ['2026-12-21' => 0.5, '2027-01-25' => 0.5],
            $paid("net_days = 30, instalments = '50@30 50@60'"),
        );
        self::assertSame(
            ['2026-12-21' => 0.7],
            $paid('net_days = 30, deposit_percent = 30'),
            'the deposit went when it was sent',
        );
        self::assertSame(['2026-12-07' => 0.98], $paid('net_days = 30, discount_percent = 2, discount_days = 10'));
        self::assertSame(['2026-11-23' => 1.0], $paid('net_days = NULL'), 'no terms: when it comes');
    }
}
