<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use TallBarrel\Desk\Reorder\ReorderBoard;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Work\Planning\PlanAgain;

/** What people tell planning, and what planning makes of it. */
final class PlanningTest extends DeskTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->as('mara');
    }

    /**
     * @return array{id: int, item: int, code: string, site: int, site_code: string} a proposal that is chosen and not
     *      drafted
     */
    private function chosen(string $where = '1'): array
    {
        $row = $this->connection()->fetchAssociative(
            'SELECT p.id, i.id item, i.code, s.id site, s.code site_code FROM proposal p
                JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id JOIN offer o ON o.id = p.offer_id
             WHERE p.chosen = 1 AND p.draft_id IS NULL AND '.
                $where.
                ' ORDER BY p.id LIMIT 1',
        );
        self::assertIsArray($row);

        /** @var array{id: int, item: int, code: string, site: int, site_code: string} $row */
        return $row;
    }

    private function replan(int $item): void
    {
        $moved = self::getContainer()->get(WhatMoved::class);
        $again = self::getContainer()->get(PlanAgain::class);
        self::assertInstanceOf(WhatMoved::class, $moved);
        self::assertInstanceOf(PlanAgain::class, $again);
        $moved->note([$item]);
        $again->some();
    }

    public function testPlannedDemandRaisesTheNeedAtOnceAndStandsInTheWhy(): void
    {
        $one = $this->chosen("p.reason LIKE 'below%'");
        $before = $this->number("SELECT JSON_VALUE(facts, '$.needed') FROM proposal WHERE id = ?", [$one['id']]);
        $this->post('/plans/demand', [
            'name' => 'Village fete',
            'day' => '2026-11-27',
            'site' => $one['site_code'],
            'lines' => $one['code'].' 500',
        ]);
        self::assertResponseRedirects('/plans');
        self::assertEqualsWithDelta(
            $before + 500,
            $this->number("SELECT JSON_VALUE(facts, '$.needed') FROM proposal WHERE id = ?", [$one['id']]),
            1e-6,
        );
        self::assertStringContainsString(
            'Village fete, Fri 27 Nov (planned)',
            $this->see('/reorder/'.$one['id'].'/why')->text(),
        );
        self::assertStringContainsString('Village fete', $this->see('/plans')->text());
        $this->post(
            '/plans/demand/'.$this->value("SELECT id FROM planned_demand WHERE name = 'Village fete'").'/remove',
        );
        self::assertEqualsWithDelta(
            $before,
            $this->number("SELECT JSON_VALUE(facts, '$.needed') FROM proposal WHERE id = ?", [$one['id']]),
            1e-6,
        );
    }

    public function testWrongPlansAreNamedByLineAndNothingTypedIsLost(): void
    {
        foreach (
            [
                [['lines' => 'JAR-340R'], 'Line 1, “JAR-340R”: expected an item code and a quantity'],
                [['lines' => "JAR-340R 5\nNIX-1 4"], 'Line 2: there is no item NIX-1'],
                [['lines' => 'JAR-340R many'], '“many” is not a number'],
                [['day' => '2026-10-01'], '1 Oct 2026 has passed'],
                [['lines' => ''], 'List what is wanted'],
                [['day' => ''], 'Say on which day'],
            ] as [$wrong, $message]
        ) {
            $this->post(
                '/plans/demand',
                $wrong + ['name' => 'Fair', 'day' => '2026-12-05', 'site' => 'FERRY', 'lines' => 'JAR-340R 5'],
            );
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($message, $this->text());
            self::assertSame('Fair', $this->browser->getCrawler()->filter('#demand input[name="name"]')->attr('value'));
        }
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM planned_demand WHERE name = 'Fair'"));
    }

    public function testAPolicyOfItsOwnIsFollowedAtOnceAndCanBeGivenUp(): void
    {
        $one = $this->chosen("p.policy = 'order-up-to'");
        $this->post('/items/'.$one['code'].'/planning/policy', [
            'kind' => 'par',
            'target' => 'cycle',
            'service' => '95',
            'amount' => '9000',
        ]);
        self::assertSame('par', $this->value('SELECT policy FROM proposal WHERE id = ?', $one['id']));
        self::assertSame(
            'below-minimum',
            str_replace(
                ['below-safety-stock', 'out', 'rush'],
                'below-minimum',
                $this->value('SELECT reason FROM proposal WHERE id = ?', $one['id']),
            ),
        );
        self::assertStringContainsString('Par level', $this->see('/reorder/'.$one['id'].'/why')->text());
        $this->post('/items/'.$one['code'].'/planning/policy', [
            'kind' => 'min-max',
            'service' => '95',
            'amount' => '20',
            'minimum' => '30',
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(
            '20',
            $this->browser->getCrawler()->filter('input[name="amount"]')->attr('value'),
            'what was typed is still there',
        );
        self::assertStringContainsString('A minimum of 30 does not go with a maximum of 20', $this->text());
        self::assertSame(
            'par',
            $this->value('SELECT policy FROM proposal WHERE id = ?', $one['id']),
            'what was wrong changed nothing',
        );
        $this->post('/items/'.$one['code'].'/planning/policy', ['kind' => '']);
        self::assertSame('order-up-to', $this->value('SELECT policy FROM proposal WHERE id = ?', $one['id']));
    }

    public function testAClassIsSetForAllItsItemsAndTheCurveShowsWhatItWouldDo(): void
    {
        $page = $this->see('/policies?class=A-smooth');
        self::assertStringContainsString('A, smooth', $page->text());
        self::assertGreaterThan(0, $this->number("SELECT COUNT(*) FROM proposal WHERE class = 'A-smooth'"));
        $curve = $this->see('/policies/curve/A-smooth?kind=order-up-to&target=cycle&service=99');
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('Change in money in stock', $curve->text());
        self::assertGreaterThan(5, $curve->filter('circle')->count());
        $this->post('/policies/A-smooth', ['kind' => 'order-up-to', 'target' => 'cycle', 'service' => '40']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('service level of 0.4 is out of range', $this->text());
        $before = $this->number(
            "SELECT SUM(JSON_VALUE(explanation, '$.levels.safety')) FROM proposal WHERE class = 'A-smooth'",
        );
        $this->post('/policies/A-smooth', ['kind' => 'order-up-to', 'target' => 'cycle', 'service' => '99.5']);
        self::assertResponseRedirects('/policies?class=A-smooth');
        $this->work();
        self::assertGreaterThan(
            1.1 * $before,
            $this->number(
                "SELECT SUM(JSON_VALUE(explanation, '$.levels.safety')) FROM proposal WHERE class = 'A-smooth'",
            ),
            'planned anew with it',
        );
        $this->as('tam');
        $this->post('/policies/A-smooth', ['kind' => 'order-up-to', 'target' => 'cycle', 'service' => '90']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testAPersonsAdjustmentHoldsUntilItsDayAndIsNamed(): void
    {
        $one = $this->chosen('p.forecast_per_week > 5');
        $before = $this->number('SELECT forecast_per_week FROM proposal WHERE id = ?', [$one['id']]);
        $this->post('/items/'.$one['code'].'/planning/adjust', [
            'percent' => '+50',
            'until' => '2027-03-01',
            'reason' => 'the other shop closes',
        ]);
        self::assertEqualsWithDelta(
            1.5 * $before,
            $this->number('SELECT forecast_per_week FROM proposal WHERE id = ?', [$one['id']]),
            0.02 * $before,
        );
        self::assertStringContainsString(
            'the other shop closes',
            $this->see('/reorder/'.$one['id'].'/why')->text(),
        );
        $this->replan($one['item']);
        self::assertEqualsWithDelta(
            1.5 * $before,
            $this->number('SELECT forecast_per_week FROM proposal WHERE id = ?', [$one['id']]),
            0.02 * $before,
            'not adjusted twice',
        );
        foreach (
            [
                ['percent' => 'lots', 'until' => '2027-03-01', 'reason' => 'x'],
                ['percent' => '20', 'until' => '2026-01-01', 'reason' => 'x'],
                ['percent' => '20', 'until' => '2027-03-01', 'reason' => ''],
            ] as $wrong
        ) {
            $this->post('/items/'.$one['code'].'/planning/adjust', $wrong);
            self::assertResponseStatusCodeSame(422);
            self::assertGreaterThan(0, $this->browser->getCrawler()->filter('.error')->count());
            self::assertSame(
                $wrong['percent'],
                $this->browser->getCrawler()->filter('input[name="percent"]')->attr('value'),
            );
        }
        $this->post(
            '/items/'.
                $one['code'].
                '/planning/adjust/'.
                $this->value('SELECT MAX(id) FROM forecast_adjustment').
                '/end',
        );
        self::assertEqualsWithDelta(
            $before,
            $this->number('SELECT forecast_per_week FROM proposal WHERE id = ?', [$one['id']]),
            1e-3,
        );
    }

    public function testABulkSaleIsMarkedAndAPersonCanOverruleIt(): void
    {
        $page = $this->see('/items/JAR-340R?site=DEPOT');
        self::assertStringContainsString('one-off bulk sale', $page->text());
        $form = $page->filter('button[value="keep"]')->last()->closest('form');
        self::assertNotNull($form);
        $day = (string) $form->filter('input[name="day"]')->attr('value');
        $week = static fn (self $test): string => $test->value(
            "SELECT JSON_EXTRACT(facts, '$.wanted') FROM proposal p JOIN item i ON i.id = p.item_id
                JOIN site s ON s.id = p.site_id WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT'",
        );
        $before = $week($this);
        $this->post('/items/JAR-340R/planning/week', ['site' => 'DEPOT', 'day' => $day, 'verdict' => 'keep']);
        self::assertNotSame($before, $week($this), 'it counts now');
        self::assertStringContainsString('Counts as it is, by hand', $this->see('/items/JAR-340R?site=DEPOT')->text());
        $this->post('/items/JAR-340R/planning/week', ['site' => 'DEPOT', 'day' => $day, 'verdict' => 'out']);
        $this->see('/items/JAR-340R?site=DEPOT');
        self::assertSame($before, $week($this));
        $this->post('/items/JAR-340R/planning/week', ['site' => 'DEPOT', 'day' => '2026-12-30', 'verdict' => 'out']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Choose a day of a week that is over', $this->text());
    }

    public function testANewItemSellsLikeTheOneItWasSaidTo(): void
    {
        $this->connection()->executeStatement(
            "INSERT INTO item (code, name, category, unit, sold, lot_tracked, version)
                VALUES ('NEW-1', 'New jar', 'Jars and lids', 'EA', 1, 0, 1)",
        );
        $this->connection()->executeStatement(
            "INSERT INTO stocking (item_id, site_id) SELECT i.id, s.id FROM item i, site s
                WHERE i.code = 'NEW-1' AND s.code = 'DEPOT'",
        );
        $this->post('/items/NEW-1/planning/facts', [
            'like' => 'JAR-340R',
            'factor' => '0.5',
            'staple' => '1',
            'shelf' => '400',
        ]);
        $rate = fn (string $code): float => $this->number(
            'SELECT forecast_per_week FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                WHERE i.code = ? AND s.code = ?',
            [$code, 'DEPOT'],
        );
        self::assertEqualsWithDelta(0.5 * $rate('JAR-340R'), $rate('NEW-1'), 0.15 * $rate('JAR-340R'));
        self::assertStringContainsString(
            '"sells-like",{"item":"JAR-340R"',
            $this->value("SELECT facts FROM proposal p JOIN item i ON i.id = p.item_id WHERE i.code = 'NEW-1'"),
        );
        $this->post('/items/NEW-1/planning/facts', ['like' => 'NEW-1']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('cannot be expected to sell like itself', $this->text());
        $this->post('/items/NEW-1/planning/facts', ['like' => 'NIX', 'shelf' => 'long']);
        self::assertStringContainsString('There is no item NIX', $this->text());
        self::assertStringContainsString('“long” is not a number of days', $this->text(), 'all that is wrong at once');
    }

    public function testARowIsPutOffWithAReasonAndComesBack(): void
    {
        $one = $this->chosen();
        $this->post('/reorder/'.$one['id'].'/later', [
            'until' => '2026-12-10',
            'reason' => 'shelf is being rebuilt',
        ]);
        self::assertResponseRedirects('/reorder');
        $page = $this->see('/reorder?q='.$one['code'])
            ->filter('#board')
            ->text();
        self::assertCount(0, $this->browser->getCrawler()->filter('#row-'.$one['id']), $page);
        self::assertStringContainsString('shelf is being rebuilt', $this->text());
        self::assertSame('0', $this->value('SELECT chosen FROM proposal WHERE id = ?', $one['id']));
        $this->replan($one['item']);
        self::assertSame(
            '0',
            $this->value('SELECT chosen FROM proposal WHERE id = ?', $one['id']),
            'a new calculation does not tick it again',
        );
        $form = $this->see('/reorder')->filter(
            'form[action="/reorder/take-up/'.$one['code'].'/'.$one['site_code'].'"]',
        );
        self::assertCount(1, $form);
        $this->post((string) $form->attr('action'));
        self::assertCount(1, $this->see('/reorder?q='.$one['code'])->filter('#row-'.$one['id']));
        $this->post('/reorder/'.$one['id'].'/later', ['until' => '2026-11-01']);
        $this->browser->followRedirect();
        self::assertStringContainsString('1 Nov 2026 has passed', $this->text());
    }

    public function testAnotherSupplierTakesTheNeedOverOrAPartOfIt(): void
    {
        $one = $this->chosen('(SELECT COUNT(*) FROM offer x WHERE x.item_id = p.item_id) > 1');
        $other = (int) $this->number(
            'SELECT x.id FROM offer x JOIN proposal p ON p.item_id = x.item_id AND p.offer_id <> x.id WHERE p.id = ?
                ORDER BY x.id LIMIT 1',
            [$one['id']],
        );
        $units = $this->number(
            'SELECT p.packs * o.pack_content FROM proposal p JOIN offer o ON o.id = p.offer_id WHERE p.id = ?',
            [$one['id']],
        );
        $minimum = (int) $this->number('SELECT GREATEST(minimum, multiple) FROM offer WHERE id = ?', [$other]);
        $this->post('/reorder/'.$one['id'].'/supplier', ['offer' => (string) $other, 'packs' => (string) $minimum]);
        self::assertEqualsWithDelta(
            (float) $minimum,
            $this->number('SELECT split_packs FROM proposal WHERE id = ?', [$one['id']]),
            1e-9,
        );
        $rest = $this->number(
            'SELECT p.packs * o.pack_content FROM proposal p JOIN offer o ON o.id = p.offer_id WHERE p.id = ?',
            [$one['id']],
        );
        self::assertLessThan($units, $rest, 'the first supplier keeps only the rest');
        $this->post('/reorder/'.$one['id'].'/supplier', ['offer' => (string) $other]);
        self::assertSame((float) $other, $this->number('SELECT offer_id FROM proposal WHERE id = ?', [$one['id']]));
        self::assertGreaterThanOrEqual(
            $rest,
            $this->number(
                'SELECT p.packs * o.pack_content FROM proposal p JOIN offer o ON o.id = p.offer_id WHERE p.id = ?',
                [$one['id']],
            ),
        );
        $this->post('/reorder/'.$one['id'].'/supplier', ['offer' => '999999']);
        $this->browser->followRedirect();
        self::assertStringContainsString('does not offer it any more', $this->text());
    }

    public function testAQuantityTypedSurvivesACalculationThatComesToTheSame(): void
    {
        $one = $this->chosen("p.packs < 100 AND o.multiple = 1 AND o.minimum = 1 AND p.reason LIKE 'below%'");
        $this->post(
            '/reorder/'.$one['id'],
            ['quantity' => [$one['id'] => '123']],
            ['HTTP_HX-Request' => 'true', 'HTTP_HX-Trigger-Name' => 'quantity['.$one['id'].']'],
        );
        $this->replan($one['item']);
        self::assertEqualsWithDelta(
            123.0,
            $this->number('SELECT packs FROM proposal WHERE id = ?', [$one['id']]),
            1e-9,
        );
        $this->connection()->executeStatement(
            'UPDATE stock_balance SET quantity = 0 WHERE item_id = ? AND site_id = ?',
            [$one['item'], $one['site']],
        );
        $this->replan($one['item']);
        self::assertNotSame(
            123.0,
            $this->number('SELECT packs FROM proposal WHERE id = ?', [$one['id']]),
            'the need has changed, and the row says so',
        );
        self::assertStringContainsString(
            'was ',
            $this->see('/reorder?q='.$one['code'])
                ->filter('#row-'.$one['id'])
                ->text(),
        );
    }

    public function testAnotherSitesSurplusIsProposedAndMovedOnce(): void
    {
        $one = $this->chosen(
            "s.code = 'FERRY' AND i.lot_tracked = 0 AND p.reason IN ('below-safety-stock', 'below-reorder-point')
                AND EXISTS (SELECT 1 FROM stocking t JOIN site d ON d.id = t.site_id
                WHERE t.item_id = i.id AND d.code = 'DEPOT')",
        );
        $depot = (int) $this->number("SELECT id FROM site WHERE code = 'DEPOT'");
        $this->connection()->executeStatement(
            "INSERT INTO stock_movement (item_id, site_id, state, lot, kind, quantity, day, at, reference)
                VALUES (?, ?, 'available', '', 'opening', 20000, '2026-11-20', '2026-11-20 08:00:00', 'test')",
            [$one['item'], $depot],
        );
        $this->connection()->executeStatement(
            "INSERT INTO stock_balance (item_id, site_id, state, lot, quantity) VALUES (?, ?, 'available', '', 20000)
                ON DUPLICATE KEY UPDATE quantity = quantity + 20000",
            [$one['item'], $depot],
        );
        $this->replan($one['item']);
        $row = $this->see('/reorder?q='.$one['code'])->filter('#row-'.$one['id']);
        self::assertStringContainsString('Depot can give', $row->text());
        self::assertSame('0', $row->filter('input.qty')->attr('value'), 'nothing needs to be bought');
        $form = $this->see('/reorder/'.$one['id'].'/why')
            ->filter('form[action="/transfer"]')
            ->form();
        $fields = $form->getPhpValues();
        /** @var array<string, mixed> $fields */
        $asked = fn (): float => $this->number(
            "SELECT COALESCE(SUM(units), 0) FROM open_transfer WHERE item_id = ? AND state = 'to-pick'",
            [$one['item']],
        );
        $before = $asked();
        $units = (float) (is_scalar($fields['quantity']) ? str_replace(',', '', (string) $fields['quantity']) : 0);
        $this->post('/transfer', $fields);
        self::assertEqualsWithDelta($before + $units, $asked(), 1e-9);
        $this->post('/transfer', $fields);
        $this->browser->followRedirect();
        self::assertStringContainsString('asked for already', $this->text());
        self::assertEqualsWithDelta($before + $units, $asked(), 1e-9, 'pressed twice, asked once');
        $this->post('/transfer', ['key' => 'other', 'quantity' => '999999'] + $fields);
        $this->browser->followRedirect();
        self::assertStringContainsString('not 999999', $this->text());
        $this->replan($one['item']);
        self::assertStringNotContainsString(
            'Depot can give',
            $this->see('/reorder?q='.$one['code'])->filter('#row-'.$one['id'])->text(''),
            'what is asked for is counted on, and not asked for again',
        );
    }

    public function testASuppliersOrderIsFilledUpWithWhatIsNeededSoonest(): void
    {
        // A supplier of whom little is chosen, and whose minimum lies just above it.
        $supplier = $this->connection()->fetchAssociative(
            'SELECT u.id, u.code, SUM(p.value) value FROM proposal p JOIN offer o ON o.id = p.offer_id
                JOIN supplier u ON u.id = o.supplier_id WHERE p.chosen = 1 AND p.listed = 1 AND p.draft_id IS NULL
                GROUP BY u.id ORDER BY COUNT(*) DESC LIMIT 1',
        );
        self::assertIsArray($supplier);
        $minimum = (float) (is_scalar($supplier['value']) ? $supplier['value'] : 0) + 60;
        $this->connection()->executeStatement('UPDATE supplier SET minimum_value = ? WHERE id = ?', [
            $minimum,
            $supplier['id'],
        ]);
        $code = is_string($supplier['code']) ? $supplier['code'] : '';
        $head = $this->see(
            '/reorder?q='.$this->value('SELECT name FROM supplier WHERE id = ?', $supplier['id']),
        )->filter('#group-'.$code);
        self::assertStringContainsString('short of their minimum', $head->text());
        $this->post('/reorder/fill/'.$code);
        $this->browser->followRedirect();
        $value = $this->number(
            'SELECT SUM(p.value) FROM proposal p JOIN offer o ON o.id = p.offer_id
                WHERE p.chosen = 1 AND p.listed = 1 AND p.draft_id IS NULL AND o.supplier_id = ?',
            [$supplier['id']],
        );
        self::assertGreaterThanOrEqual($minimum, $value);
        self::assertSame(
            0.0,
            $this->number("SELECT COUNT(*) FROM proposal WHERE chosen = 1 AND listed = 1 AND reason = 'covered'"),
            'a row added says why it is there',
        );
        $this->post('/reorder/fill/'.$code);
        $this->browser->followRedirect();
        self::assertStringContainsString('asks for nothing more now', $this->text());
    }

    public function testTheBudgetLeavesOutWhatRisksLeastAndSaysSo(): void
    {
        // All that is sent this month, approved, waiting or drafted, by a query of its own.
        $spokenFor = fn (): float => $this->number(
            "SELECT SUM(ROUND((l.packs - l.closed_short) * l.price, 2) / o.foreign_for_one) FROM order_line l
                JOIN purchase_order o ON o.id = l.order_id
                WHERE o.state <> 'cancelled' AND IFNULL(o.sent_at, '2026-11-30') >= '2026-11-01'",
        );
        $chosen = fn (): float => $this->number(
            'SELECT IFNULL(SUM(home_value), 0) FROM proposal WHERE chosen = 1 AND draft_id IS NULL',
        );
        $budget = round($spokenFor() + 3000, 2);
        $this->as('rowan');
        $this->post('/settings/budget', ['usual' => (string) $budget]);
        $this->post('/reorder/calculate');
        self::assertLessThanOrEqual(3000.01, $chosen());
        self::assertGreaterThan(1500.0, $chosen());
        self::assertGreaterThan(10, $this->number('SELECT COUNT(*) FROM proposal WHERE cut = 1'));
        self::assertSame(
            0.0,
            $this->number("SELECT COUNT(*) FROM proposal WHERE cut = 1 AND reason = 'rush'"),
            'a waiting customer is not cut',
        );
        $this->see('/reorder?q=left+out');
        self::assertStringContainsString('left out: budget', $this->text());
        self::assertStringContainsString('left of November’s', $this->text());
        $this->see('/reorder');
        $this->post('/reorder/draft');
        self::assertSame(0.0, $chosen());
        $this->post('/reorder/calculate');
        self::assertLessThanOrEqual($budget + 0.01, $spokenFor() + $chosen(), 'what is drafted is not there twice');
        self::assertGreaterThan(10, $this->number('SELECT COUNT(*) FROM proposal WHERE cut = 1'));
    }

    public function testACategorysLimitLeavesOutOnlyItsLines(): void
    {
        $this->as('rowan');
        $page = $this->see('/settings/budget');
        $rows = $page->filter('tbody tr');
        $row = $rows->reduce(static fn (Crawler $row): bool => str_contains($row->text(), 'Frames'));
        $field = (string) $row->filter('input')->attr('name');
        $was = $page->filter('input[name="was"]')->attr('value');
        $this->post('/settings/budget', ['usual' => '', 'was' => $was, $field => '-3']);
        self::assertStringContainsString('-3', $this->browser->getCrawler()->filter('[name="'.$field.'"]')
            ->closest('td')?->text() ?? '');
        $this->post('/settings/budget', ['usual' => '', 'was' => $was, $field => '0']);
        self::assertResponseRedirects('/settings/budget');
        $this->post('/reorder/calculate');
        self::assertSame(['Frames'], $this->connection()->fetchFirstColumn(
            'SELECT DISTINCT i.category FROM proposal p JOIN item i ON i.id = p.item_id WHERE p.cut = 1',
        ));
        // What the page showed first has changed since.
        $this->post('/settings/budget', ['usual' => '9000', 'was' => $was, $field => '']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed the budget', $this->text());
        self::assertSame('9000', $this->browser->getCrawler()->filter('[name="usual"]')->attr('value'));
    }

    public function testTheOwnerSetsTheBudgetAndWhatIsWrongIsSaidAtItsMonth(): void
    {
        $this->as('rowan');
        $this->post('/settings/budget', ['usual' => 'lots', '2026-12' => '-5', '2027-01' => '12,500.50']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('A usual month', $this->text());
        self::assertStringContainsString('“lots”', $this->text());
        self::assertStringContainsString('“-5”', $this->text());
        $page = $this->browser->getCrawler();
        self::assertSame(
            ['lots', '-5', '12500.5'],
            array_map(
                static fn (string $name): ?string => $page->filter(sprintf('input[name="%s"]', $name))->attr('value'),
                ['usual', '2026-12', '2027-01'],
            ),
            'what was typed is still there',
        );
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM month_budget'));
        $this->post('/settings/budget', ['usual' => '60000', '2026-11' => '1000', '2027-01' => '12,500.50']);
        $page = $this->see('/settings/budget');
        self::assertStringContainsString('over', $page->filter('tr:contains("November 2026")')->text());
        self::assertStringContainsString('€12,501', $page->filter('tr:contains("January 2027")')->text());
        self::assertStringContainsString('€60,000', $page->filter('tr:contains("December 2026")')->text());
        self::assertStringContainsString('over November’s budget', $this->see('/')->text());
        $this->post('/settings/budget', ['usual' => '']);
        self::assertStringNotContainsString('budget', $this->see('/')->filter('main')->text());
        $this->as('mara');
        self::assertCount(0, $this->see('/settings/budget')->filter('input[name=usual]'));
        $this->post('/settings/budget', ['usual' => '1']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testStartsFromWhatIsAskedFor(): void
    {
        $listed = fn (string $more = '1'): float => $this->number(
            'SELECT COUNT(*) FROM proposal p JOIN item i ON i.id = p.item_id WHERE p.listed = 1 AND '.$more,
        );
        $due = $listed();
        $this->post('/reorder/calculate', ['start' => 'minimum']);
        self::assertLessThan($due, $listed());
        self::assertSame(0.0, $listed("p.reason IN ('below-reorder-point', 'planned', 'covered')"));
        $this->post('/reorder/calculate', ['start' => 'staples']);
        self::assertSame($listed(), $listed('i.staple = 1'));
        $this->post('/reorder/calculate', [
            'start' => 'list',
            'list' => $this->value("SELECT id FROM order_list WHERE name = 'Millbank shelf'"),
        ]);
        self::assertSame($listed(), $listed("p.site_id = (SELECT id FROM site WHERE code = 'MILL')"));
        self::assertGreaterThan(0.0, $listed("p.reason = 'asked'"));
        $this->post('/reorder/calculate', ['start' => 'value', 'value' => '4,000']);
        self::assertGreaterThan(0.0, $listed());
        $this->post('/reorder/calculate', ['start' => 'nothing', 'stock' => 'no']);
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM proposal WHERE chosen = 1'));
        self::assertGreaterThan($due, $listed(), 'without counting the stock on hand everything is due');
        foreach (
            [
                [['start' => 'cover', 'days' => ''], 'Say how many days'],
                [['start' => 'cover', 'days' => 'ten'], '“ten” is not a number'],
                [['start' => 'list'], 'Choose an order list'],
                [['history' => 'range', 'from' => '2026-10-01', 'to' => '2026-09-01'], 'in this order'],
                [['start' => 'everything'], 'cannot start from “everything”'],
            ] as [$wrong, $message]
        ) {
            $this->post('/reorder/calculate', $wrong);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($message, $this->text());
        }
    }

    public function testRestsOnTheHistoryThatIsChosenAndNamesIt(): void
    {
        $method = fn (): string => $this->value(
            "SELECT JSON_VALUE(p.forecast, '$.method') FROM proposal p JOIN item i ON i.id = p.item_id
                WHERE i.code = 'JAR-340R' ORDER BY p.id LIMIT 1",
        );
        foreach (
            [
                ['lately', [], 'mean of the last 4 weeks'],
                ['last-year', [], 'the same weeks last year'],
                ['range', ['from' => '2026-05-01', 'to' => '2026-07-31'], 'mean of 2026-05-01 to 2026-07-31'],
            ] as [$history, $more, $words]
        ) {
            $this->post('/reorder/calculate', ['history' => $history] + $more);
            self::assertSame($words, $method());
        }
        $sold = $this->number(
            "SELECT SUM(d.quantity) FROM sales_day d JOIN item i ON i.id = d.item_id JOIN site s ON s.id = d.site_id
                WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT' AND d.day BETWEEN '2026-05-01' AND '2026-07-31'",
        );
        $perWeek = $this->number(
            "SELECT forecast_per_week FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT'",
        );
        self::assertEqualsWithDelta($sold / 13.1, $perWeek, 0.12 * $perWeek);
    }

    public function testListsAndClosedDaysAreKeptAndWrongOnesNamed(): void
    {
        $this->post('/plans/lists', ['list' => 'Window', 'items' => "JAR-340R\nLID-63G"]);
        self::assertSame(
            '2',
            $this->value(
                "SELECT COUNT(*) FROM order_list_item m JOIN order_list l ON l.id = m.order_list_id
                    WHERE l.name = 'Window'",
            ),
        );
        foreach (
            [
                [['list' => 'Window', 'items' => 'JAR-340R'], 'There is a list called “Window” already'],
                [['list' => 'Empty'], 'A list needs items, or a supplier'],
                [['list' => 'Odd', 'items' => 'NIX'], 'Line 1: there is no item NIX'],
            ] as [$wrong, $message]
        ) {
            $this->post('/plans/lists', $wrong);
            self::assertStringContainsString($message, $this->text());
        }
        $arrival = $this->value(
            "SELECT MIN(p.arrival) FROM proposal p JOIN offer o ON o.id = p.offer_id
                JOIN supplier s ON s.id = o.supplier_id WHERE s.code = 'VETRASOL'",
        );
        $this->post('/plans/closures', [
            'who' => 'VETRASOL',
            'first' => '2026-11-24',
            'last' => '2026-12-04',
            'words' => 'Furnace',
        ]);
        $this->work();
        self::assertGreaterThan(
            $arrival,
            $this->value(
                "SELECT MIN(p.arrival) FROM proposal p JOIN offer o ON o.id = p.offer_id
                    JOIN supplier s ON s.id = o.supplier_id WHERE s.code = 'VETRASOL'",
            ),
            'they are shut on the way',
        );
        $this->post('/plans/closures', ['who' => '', 'first' => '2026-12-24', 'last' => '2026-12-20']);
        self::assertStringContainsString('before it begins', $this->text());
        $this->post('/plans/lists/'.$this->value("SELECT id FROM order_list WHERE name = 'Window'").'/remove');
        $this->post('/plans/closures/'.$this->value("SELECT id FROM closure WHERE words = 'Furnace'").'/remove');
        self::assertSame('0', $this->value("SELECT COUNT(*) FROM closure WHERE words = 'Furnace'"));
    }

    public function testALateOrderIsCountedOnOnlyIfAPersonSaysSo(): void
    {
        $late = $this->connection()->fetchAssociative(
            "SELECT o.number, l.item_id FROM purchase_order o JOIN order_line l ON l.order_id = o.id
                WHERE o.state = 'sent' AND o.wanted_on < '2026-11-01' LIMIT 1",
        );
        self::assertIsArray($late);
        $number = is_string($late['number']) ? $late['number'] : '';
        $this->post('/orders/'.$number.'/count-on', ['count' => '1']);
        self::assertSame('1', $this->value('SELECT counted_on FROM purchase_order WHERE number = ?', $number));
        self::assertStringNotContainsString(
            'forgotten-order',
            $this->value(
                "SELECT GROUP_CONCAT(JSON_EXTRACT(explanation, '$.notes')) FROM proposal WHERE item_id = ?",
                $late['item_id'],
            ),
        );
        $this->post('/orders/'.$number.'/count-on', ['count' => '0']);
        self::assertStringContainsString(
            'forgotten-order',
            $this->value(
                "SELECT GROUP_CONCAT(JSON_EXTRACT(explanation, '$.notes')) FROM proposal WHERE item_id = ?",
                $late['item_id'],
            ),
        );
        $this->as('iris');
        $this->post('/orders/'.$number.'/count-on', ['count' => '1']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testASupplierIsAskedToBringAnOrderForward(): void
    {
        $open = $this->connection()->fetchAssociative(
            "SELECT o.number, i.code, s.name FROM purchase_order o JOIN order_line l ON l.order_id = o.id
                JOIN item i ON i.id = l.item_id JOIN supplier s ON s.id = o.supplier_id WHERE o.number = 'PO-1077'
                LIMIT 1",
        );
        self::assertIsArray($open);
        $this->post('/orders/PO-1077/bring-forward', ['by' => '2026-11-24', 'item' => $open['code']]);
        $this->browser->followRedirect();
        self::assertStringContainsString('has been asked to bring PO-1077 forward to Tue 24 Nov', $this->text());
        self::assertStringContainsString(
            'Asked to bring',
            $this->value("SELECT words FROM audit_entry WHERE subject = 'PO-1077' ORDER BY id DESC LIMIT 1"),
        );
        $this->post('/orders/PO-1077/bring-forward', ['by' => '2026-11-24', 'item' => 'HIV-NBBC']);
        $this->browser->followRedirect();
        self::assertStringContainsString('HIV-NBBC is not on PO-1077', $this->text());
    }

    public function testALongListIsShownInPartsAndAGroupIsTickedAtOnce(): void
    {
        $page = $this->see('/reorder');
        self::assertCount(ReorderBoard::PAGE, $page->filter('tr[data-row]'));
        $more = $page->filter('tr.more')->first();
        self::assertGreaterThan(0, $more->count());
        $rest = $this->see((string) $more->attr('hx-get'));
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('data-row', (string) $this->browser->getResponse()->getContent());
        self::assertCount(0, $rest->filter('main'));
        $code = $this->value(
            'SELECT u.code FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN supplier u ON u.id = o.supplier_id
                WHERE p.chosen = 1 AND p.draft_id IS NULL LIMIT 1',
        );
        $chosen = fn (): float => $this->number(
            'SELECT COUNT(*) FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN supplier u ON u.id = o.supplier_id
                WHERE u.code = ? AND p.chosen = 1 AND p.draft_id IS NULL',
            [$code],
        );
        $this->post('/reorder/group/'.$code);
        self::assertSame(0.0, $chosen());
        $this->post('/reorder/group/'.$code.'?all=1', [], ['HTTP_HX-Request' => 'true']);
        self::assertGreaterThan(0.0, $chosen());
        self::assertStringContainsString('hx-swap-oob', (string) $this->browser->getResponse()->getContent());
    }

    public function testTheBoardAndAWhyGoOnPaper(): void
    {
        self::assertStringContainsString('Reorder point', $this->see('/reorder/paper')->text());
        self::assertStringContainsString(
            'Safety stock',
            $this->see('/reorder/paper?only='.$this->chosen("p.reason LIKE 'below%'")['id'])->text(),
        );
    }

    public function testACalculationThatFailsLeavesTheLastResultAndSaysSo(): void
    {
        $before = $this->number('SELECT COUNT(*) FROM proposal');
        $this->connection()->executeStatement("UPDATE planning_run SET state = 'running', at = '2026-11-23 10:29:00'");
        $this->post('/reorder/calculate');
        $this->browser->followRedirect();
        self::assertStringContainsString('under way already', $this->text());
        $this->connection()->executeStatement("UPDATE planning_run SET state = 'done'");
        $this->entities()->clear();
        $this->connection()->executeStatement(
            "INSERT INTO planning_run (at, item_sites, milliseconds, state, done, message, options)
                VALUES ('2026-11-23 10:29:30', 10, 0, 'failed', 3, 'the disk is full', '{}')",
        );
        self::assertStringContainsString(
            'The last calculation stopped: the disk is full',
            $this->see('/reorder')->text(),
        );
        self::assertSame($before, $this->number('SELECT COUNT(*) FROM proposal'));
        self::assertSame(
            'true',
            $this->see('/reorder/progress')->count() > 0
                ? $this->browser->getResponse()->headers->get('HX-Refresh')
                : '',
        );
    }

    public function testOnlyTheOwnerLetsALowerPriceTakeMoreThanAPolicysLevel(): void
    {
        $beyond = fn (): float => $this->number(
            "SELECT beyond FROM policy_setting WHERE value_class = 'A' AND pattern = 'smooth'",
        );
        $policy = ['kind' => 'order-up-to', 'target' => 'cycle', 'service' => '97'];
        self::assertSame(1.0, $beyond());
        $this->as('mara');
        $this->post('/policies/A-smooth', $policy);
        self::assertSame(1.0, $beyond(), 'a buyer takes it from nobody');
        $this->as('rowan');
        $this->post('/policies/A-smooth', $policy);
        self::assertSame(0.0, $beyond());
        $this->as('mara');
        $this->post('/policies/A-smooth', $policy + ['beyond' => '1']);
        self::assertSame(0.0, $beyond(), 'nor gives it to anybody');
    }

    public function testAPolicyMayHoldAtOneSiteOnly(): void
    {
        $this->as('mara');
        $ferry = (string) $this->number("SELECT id FROM site WHERE code = 'FERRY'");
        $upTo = fn (string $site): float => $this->number(
            'SELECT p.order_up_to FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
             WHERE i.code = ? AND s.code = ?',
            ['JAR-340R', $site],
        );
        $depot = $upTo('DEPOT');
        $typed = ['where' => $ferry, 'kind' => 'par', 'target' => 'cycle', 'service' => '95', 'amount' => '777'];
        $this->post('/items/JAR-340R/planning/policy', $typed);
        self::assertResponseRedirects('/items/JAR-340R?site=FERRY');
        $this->work();
        self::assertSame([777.0, $depot], [$upTo('FERRY'), $upTo('DEPOT')]);
        $asked = $this->see('/items/JAR-340R?site=FERRY')->filter('[hx-get*="/planning"]')->attr('hx-get') ?? '';
        foreach (['HTTP_HX_REQUEST' => 'true', 'HTTP_X_NONE' => 'without a script'] as $header => $value) {
            $page = $this->browser->request('GET', $asked, server: [$header => $value]);
            $form = $page->filter('form[action$="/planning/policy"]')->form();
            self::assertSame([$ferry, '777'], [$form->getValues()['where'], $form->getValues()['amount']], $value);
        }
        $depot = $this->see('/items/JAR-340R/planning?site=DEPOT');
        self::assertSame('', $depot->filter('#amount')->attr('value') ?? '');
        $this->post('/items/JAR-340R/planning/policy', ['kind' => 'par', 'amount' => '555'] + ['where' => ''] + $typed);
        $this->work();
        self::assertSame([777.0, 555.0], [$upTo('FERRY'), $upTo('DEPOT')], 'the more particular one counts');
        $this->post('/items/JAR-340R/planning/policy', ['kind' => ''] + $typed);
        $this->work();
        self::assertSame([555.0, 555.0], [$upTo('FERRY'), $upTo('DEPOT')]);
    }
}
