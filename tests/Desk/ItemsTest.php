<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use TallBarrel\Store\Stock\Verification;

/** Items made, changed, joined, given up. */
final class ItemsTest extends DeskTestCase
{
    private const ITEM = [
        'code' => 'NEW/1', 'name' => 'Pollen trap', 'category' => 'Tools', 'unit' => 'EA', 'sort' => 'sold',
        'sales_price' => '24.50',
    ];

    private function site(string $code): int
    {
        return (int) $this->number('SELECT id FROM site WHERE code = ?', [$code]);
    }

    private function id(string $code): int
    {
        return (int) $this->number('SELECT id FROM item WHERE code = ?', [$code]);
    }

    private function proven(): void
    {
        $verification = self::getContainer()->get(Verification::class);
        self::assertInstanceOf(Verification::class, $verification);
        self::assertSame([], $verification->differences());
    }

    /**
     * What a form of this item would send.
     *
     * @return array<string, mixed>
     */
    private function typed(string $code): array
    {
        $page = $this->see('/items/'.$code.'/edit');
        /** @var array<string, mixed> $values */
        $values = $page->filter('#item')->form()->getValues();

        return $values;
    }

    /**
     * @param array<string, mixed> $values by the names of the fields
     *
     * @return array<string, mixed> as a request has them
     */
    private function sent(array $values): array
    {
        parse_str(http_build_query($values), $fields);

        return array_filter($fields, static fn (int|string $name): bool => is_string($name), \ARRAY_FILTER_USE_KEY);
    }

    /** @param array<string, mixed> $changes */
    private function save(string $code, array $changes): void
    {
        $this->post('/items/'.$code.'/edit', $changes + $this->sent($this->typed($code)));
    }

    public function testMadeFromScratchItIsFoundAndSaysWhatItLacks(): void
    {
        $this->as('mara');
        $this->post('/items/new', self::ITEM + [
            'further_names' => 'bee bread catcher',
            'pack_name' => ['box', ''],
            'pack_quantity' => ['12', ''],
            'pack_gtin' => ['9521234543213', ''],
            'stocked' => [$this->site('FERRY') => '1'],
        ]);
        self::assertResponseRedirects('/items/NEW/1');
        $page = $this->browser->followRedirect()->text();
        self::assertStringContainsString('nobody sells it', $page);
        self::assertStringContainsString('box of 12', $page);
        foreach (['NEW/1', 'catcher bread', '9521234543213', 'pollen'] as $words) {
            self::assertStringContainsString('NEW/1', $this->see('/find?q='.urlencode($words))->text(), $words);
        }
        foreach (['/items', '/stock', '/items/NEW/1/edit', '/compare/items/NEW/1'] as $address) {
            $this->see($address);
            self::assertResponseIsSuccessful($address);
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function slips(): iterable
    {
        yield 'no code' => [['code' => ''], 'is no item code'];
        yield 'a code that is taken' => [['code' => 'JAR-340R'], 'JAR-340R is Round honey jar'];
        yield 'no name' => [['name' => ''], 'An item needs a name'];
        yield 'a GTIN that is another’s' => [['gtin' => '9520000017392'], 'belongs to JAR-340R already'];
        yield 'a check digit' => [['gtin' => '9520000017393'], 'check digit'];
        yield 'a pack of nothing' => [['pack_name' => ['box'], 'pack_quantity' => ['0']], 'holds nothing'];
        yield 'a pack without a number' => [['pack_name' => ['box'], 'pack_quantity' => ['']], 'How many units'];
        yield 'two packs of one name' => [
            ['pack_name' => ['box', 'Box'], 'pack_quantity' => ['6', '12']], 'two packs called',
        ];
        yield 'a country' => [['origin' => 'XX'], 'no country'];
        yield 'a price' => [['sales_price' => 'dear'], 'dear'];
        yield 'what lists write between code and name' => [['code' => 'JAR · 9'], 'a name follows'];
        yield 'a mark nobody sees' => [['code' => "JAR\u{200B}9"], 'cannot be seen'];
    }

    /** @param array<string, mixed> $changes */
    #[DataProvider('slips')]
    public function testASlipIsNamedAndNothingTypedIsLost(array $changes, string $reason): void
    {
        $this->as('mara');
        $page = $this->post('/items/new', $changes + self::ITEM + ['notes' => 'Keep dry.']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($reason, $page->text());
        self::assertSame('Keep dry.', $page->filter('#notes')->text());
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM item WHERE code = 'NEW/1'"));
    }

    public function testOneLikeAnotherIsBegunWithWhatTheyShare(): void
    {
        $this->as('mara');
        $page = $this->see('/items/new?like=JAR-340R');
        self::assertSame('', $page->filter('#code')->attr('value') ?? '');
        self::assertSame('', $page->filter('#gtin')->attr('value') ?? '');
        self::assertSame('Jars and lids', $page->filter('#category')->attr('value'));
        self::assertCount(3, $page->filter('[name^="stocked"][checked]'));
    }

    public function testWhoSavesOverSomebodyElseIsTold(): void
    {
        $this->as('mara');
        $typed = $this->typed('JAR-340R');
        $this->save('JAR-340R', ['name' => 'Round jar']);
        self::assertResponseRedirects();
        $this->post('/items/JAR-340R/edit', ['name' => 'Other jar'] + $this->sent($typed));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this item', $this->text());
        self::assertSame('Other jar', $this->browser->getCrawler()->filter('#name')->attr('value'));
    }

    public function testACodeMayChangeAndAUnitOnlyWhileNothingIsBooked(): void
    {
        $this->as('mara');
        $this->save('JAR-340R', ['code' => 'JAR 340 R']);
        self::assertResponseRedirects('/items/JAR%20340%20R');
        $this->save('JAR%20340%20R', ['unit' => 'SET']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Something is booked', $this->text());
        $this->post('/items/new', self::ITEM);
        $this->save('NEW/1', ['unit' => 'SET']);
        self::assertSame('SET', $this->connection()->fetchOne("SELECT unit FROM item WHERE code = 'NEW/1'"));
    }

    public function testCountedInAnotherUnitEverythingFollowsAndTheLedgerIsProven(): void
    {
        $this->as('mara');
        $item = $this->connection()->fetchAssociative(
            "SELECT i.id, i.code, i.average_cost, i.sales_price FROM item i
             WHERE i.unit = 'EA' AND i.average_cost > 0
             AND EXISTS (SELECT 1 FROM stock_movement m WHERE m.item_id = i.id AND m.kind = 'receipt')
             AND NOT EXISTS (SELECT 1 FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE l.item_id = i.id AND o.state NOT IN ('received', 'closed', 'cancelled'))
             AND NOT EXISTS (SELECT 1 FROM quote_item q WHERE q.item_id = i.id) LIMIT 1",
        );
        self::assertIsArray($item);
        /** @var array{id: int, code: string, average_cost: string, sales_price: string} $item */
        $held = $this->number('SELECT SUM(quantity) FROM stock_balance WHERE item_id = ?', [$item['id']]);
        $sold = $this->number('SELECT SUM(quantity) FROM sales_day WHERE item_id = ?', [$item['id']]);
        $content = $this->number('SELECT SUM(pack_content) FROM offer WHERE item_id = ?', [$item['id']]);
        $this->post('/items/'.$item['code'].'/unit', ['factor' => '4', 'to' => 'H87']);
        self::assertResponseRedirects('/items/'.$item['code']);
        self::assertSame(4 * $held,
            $this->number('SELECT SUM(quantity) FROM stock_balance WHERE item_id = ?', [$item['id']]));
        self::assertSame(4 * $sold,
            $this->number('SELECT SUM(quantity) FROM sales_day WHERE item_id = ?', [$item['id']]));
        self::assertSame(4 * $content,
            $this->number('SELECT SUM(pack_content) FROM offer WHERE item_id = ?', [$item['id']]));
        self::assertEqualsWithDelta(
            (float) $item['average_cost'] / 4,
            $this->number('SELECT average_cost FROM item WHERE id = ?', [$item['id']]),
            0.000001,
        );
        $this->proven();
    }

    /** What was agreed, promised or proposed in the old unit may not become four times as much unseen. */
    public function testNoFigureOfTheOldUnitIsLeftBehind(): void
    {
        $this->as('mara');
        $this->post('/items/new', ['code' => 'LID-NEW', 'name' => 'Lid, new'] + self::ITEM);
        $item = $this->id('LID-NEW');
        $connection = $this->connection();
        $connection->executeStatement(
            "INSERT INTO agreement (number, supplier_id, item_id, category, measure, promised, tolerance_percent,
                first_day, last_day, ended, renewal, version)
             SELECT 'AG-9', MIN(id), ?, '', 'quantity', 400, 0, '2026-01-01', '2099-12-31', 0, '', 1 FROM supplier",
            [$item],
        );
        $refusal = function (string $factor) use ($item): string {
            $this->entities()->clear();
            $this->post('/items/LID-NEW/unit', ['factor' => $factor, 'to' => 'SET']);
            self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM item WHERE id = ? AND unit = 'SET'", [$item]));

            return $this->browser->followRedirect()->text();
        };
        self::assertStringContainsString('the agreement AG-9', $refusal('0.25'));
        $connection->executeStatement("UPDATE agreement SET ended = 1 WHERE number = 'AG-9'");
        $connection->executeStatement(
            "INSERT INTO customer_promise (item_id, site_id, quantity, wanted_on, reference, customer)
             VALUES (?, ?, 6, '2026-12-01', 'W-1', 'Tobin')",
            [$item, $this->site('DEPOT')],
        );
        self::assertStringContainsString('6 pcs would be 1.5 sets', $refusal('0.25'));
        $connection->executeStatement('UPDATE customer_promise SET quantity = 8 WHERE item_id = ?', [$item]);
        $this->entities()->clear();
        $this->post('/items/LID-NEW/unit', ['factor' => '0.25', 'to' => 'SET']);
        self::assertSame(2.0, $this->number('SELECT quantity FROM customer_promise WHERE item_id = ?', [$item]));
        $planned = $this->number('SELECT promised FROM proposal WHERE item_id = ?', [$item]);
        self::assertSame(2.0, $planned, 'planned anew');
    }

    public function testADoubleGoesOverWithItsStockAndIsStillFound(): void
    {
        $this->as('mara');
        $this->post('/items/new', ['code' => 'JAR-TWO', 'name' => 'Honey jar round'] + self::ITEM);
        $this->connection()->executeStatement(
            'INSERT INTO sales_day (item_id, site_id, day, quantity, out_of_stock)
             SELECT ?, site_id, MAX(day), 7, 0 FROM sales_day WHERE item_id = ? GROUP BY site_id',
            [$this->id('JAR-TWO'), $this->id('JAR-340R')],
        );
        $this->connection()->executeStatement(
            "INSERT INTO stock_movement (item_id, site_id, state, lot, kind, quantity, unit_cost, day, at, reference)
             VALUES (?, ?, 'available', '', 'opening', 100, 2, '2026-11-01', '2026-11-01 10:00:00', 'opening')",
            [$this->id('JAR-TWO'), $this->site('DEPOT')],
        );
        $this->connection()->executeStatement(
            "INSERT INTO stock_balance (item_id, site_id, state, lot, quantity) VALUES (?, ?, 'available', '', 100)",
            [$this->id('JAR-TWO'), $this->site('DEPOT')],
        );
        $this->connection()->executeStatement("UPDATE item SET average_cost = 2 WHERE code = 'JAR-TWO'");
        $this->entities()->clear();
        $facts = fn (): array => (array) $this->connection()->fetchNumeric(
            'SELECT (SELECT SUM(quantity) FROM stock_balance WHERE item_id = i.id) held, i.average_cost,
                (SELECT SUM(quantity) FROM sales_day WHERE item_id = i.id) FROM item i WHERE i.id = ?',
            [$this->id('JAR-340R')],
        );
        [$held, $cost, $sold] = array_map(static fn (mixed $one): float => is_numeric($one) ? (float) $one : 0.0,
            $facts());
        $this->post('/items/JAR-TWO/join', ['into' => 'JAR-340R · Round honey jar']);
        self::assertResponseRedirects('/items/JAR-340R');
        [$heldNow, $costNow, $soldNow] = array_map(
            static fn (mixed $one): float => is_numeric($one) ? (float) $one : 0.0,
            $facts(),
        );
        self::assertSame($held + 100, $heldNow);
        self::assertSame($sold + 21, $soldNow);
        self::assertEqualsWithDelta(($held * $cost + 200) / ($held + 100), $costNow, 0.000001);
        $this->proven();
        self::assertStringContainsString('JAR-340R', $this->see('/find?q=JAR-TWO')->text());
        self::assertStringNotContainsString('JAR-TWO', $this->see('/items?q=JAR-TWO')->filter('#item-rows')->text());
        $this->post('/items/JAR-TWO/join', ['into' => 'JAR-340R']);
        self::assertStringContainsString('archived already', $this->browser->followRedirect()->text());
    }

    public function testWhatWasUsedIsArchivedAndWhatNeverWasIsDeleted(): void
    {
        $this->as('mara');
        $ordered = $this->connection()
            ->fetchOne('SELECT i.code FROM open_line l JOIN item i ON i.id = l.item_id LIMIT 1');
        self::assertIsString($ordered);
        $this->post('/items/'.$ordered.'/archive');
        $page = $this->browser->followRedirect()->filter('.note')->text();
        self::assertMatchesRegularExpression('/is still in (PO|Q)-/', $page);
        $free = $this->connection()->fetchOne(
            "SELECT i.code FROM item i JOIN proposal p ON p.item_id = i.id
             WHERE NOT EXISTS (SELECT 1 FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE l.item_id = i.id AND o.state NOT IN ('received', 'closed', 'cancelled'))
             AND NOT EXISTS (SELECT 1 FROM open_promise c WHERE c.item_id = i.id)
             AND NOT EXISTS (SELECT 1 FROM quote_item q WHERE q.item_id = i.id) LIMIT 1",
        );
        self::assertIsString($free);
        $this->post('/items/'.$free.'/delete');
        self::assertStringContainsString('archived and not deleted', $this->browser->followRedirect()->text());
        $this->post('/items/'.$free.'/archive');
        $this->browser->followRedirect();
        $this->work();
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM proposal WHERE item_id = ?', [$this->id($free)]));
        self::assertStringContainsString($free, $this->see('/items?archived=1')->text());
        $this->post('/items/'.$free.'/take-up');
        $this->work();
        self::assertGreaterThan(0.0,
            $this->number('SELECT COUNT(*) FROM proposal WHERE item_id = ?', [$this->id($free)]));
        $this->post('/items/new', self::ITEM);
        $this->post('/items/NEW/1/delete');
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM item WHERE code = 'NEW/1'"));
    }

    public function testAPictureIsDrawnAnewAndAFileThatIsNoneIsRefused(): void
    {
        $this->as('mara');
        $path = (string) tempnam(sys_get_temp_dir(), 'picture');
        $image = imagecreatetruecolor(1800, 900);
        imagepng($image, $path);
        file_put_contents($path, (string) file_get_contents($path).'<?php hidden');
        $send = function (string $name) use ($path): void {
            $this->browser->request('POST', '/items/JAR-340R/edit', $this->sent($this->typed('JAR-340R')), [
                'picture' => new UploadedFile($path, $name, 'image/png', null, true),
            ]);
        };
        $send('jar.png');
        self::assertResponseRedirects();
        $this->see('/items/JAR-340R/picture');
        $kept = (string) $this->browser->getResponse()->getContent();
        self::assertSame([900, 450], array_slice((array) getimagesizefromstring($kept), 0, 2));
        self::assertStringNotContainsString('hidden', $kept);
        file_put_contents($path, '<svg xmlns="http://www.w3.org/2000/svg"/>');
        $send('jar.png');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('no picture that can be shown', $this->text());
    }

    public function testCategoriesAreATreeThatIsEdited(): void
    {
        $this->as('mara');
        $id = fn (string $name): string => (string) $this->number('SELECT id FROM category WHERE name = ?', [$name]);
        $this->post('/settings/categories', ['name' => 'Glass', 'under' => $id('Harvest')]);
        $this->post('/settings/categories/'.$id('Jars and lids').'/change',
            ['name' => 'Jars', 'under' => $id('Glass')]);
        self::assertSame(33.0, $this->number("SELECT COUNT(*) FROM item WHERE category = 'Jars'"));
        self::assertSame(1.0, $this->number("SELECT COUNT(*) FROM order_list WHERE category = 'Jars'"), 'lists follow');
        $this->post('/settings/categories/'.$id('Harvest').'/change', ['name' => 'Harvest', 'under' => $id('Jars')]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('would be part of itself', $this->text());
        $this->post('/settings/categories', ['name' => 'glass']);
        self::assertStringContainsString('There is a category “Glass” already', $this->text());
        $this->post('/settings/categories/'.$id('Jars').'/out');
        self::assertStringContainsString('33 items are in “Jars”', $this->text());
        $this->post('/settings/categories/'.$id('Jars').'/join', ['under' => $id('Glass')]);
        self::assertSame(33.0, $this->number("SELECT COUNT(*) FROM item WHERE category = 'Glass'"));
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM category WHERE name = 'Jars'"));
    }

    public function testTheStockroomAndTheBookkeeperOnlyLook(): void
    {
        foreach (['tam', 'iris'] as $name) {
            $this->as($name);
            $this->post('/items/new', self::ITEM);
            self::assertResponseStatusCodeSame(403);
            $this->see('/items/JAR-340R');
            self::assertResponseIsSuccessful();
        }
    }
}
