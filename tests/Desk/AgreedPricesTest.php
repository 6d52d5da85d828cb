<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** Prices agreed for more than one offer, tax rates by name, and what suppliers and offers bring to an order. */
final class AgreedPricesTest extends DeskTestCase
{
    private const CODE = 'JAR-370H';

    private function begin(string $supplier = 'VETRASOL', string $item = self::CODE): string
    {
        $this->post('/orders/new', ['supplier' => $supplier, 'item' => $item]);
        self::assertResponseRedirects();

        $page = (string) $this->browser->getResponse()->headers->get('Location');

        return basename((string) parse_url($page, \PHP_URL_PATH));
    }

    /** @return array<string, mixed> the form of a page, without its token */
    private function form(string $path, string $form): array
    {
        /** @var array<string, mixed> $values */
        $values = $this->see($path)->filter($form)->form()->getPhpValues();

        return array_diff_key($values, ['_token' => 1]);
    }

    /** @param array<string, mixed> $changes */
    private function saveOrder(string $number, array $changes): void
    {
        $this->post('/orders/'.$number, $changes + ['do' => 'save'] + $this->form('/orders/'.$number, '#order'));
    }

    /** @param array<string, string> $changes */
    private function saveSupplier(string $code, array $changes): void
    {
        $this->post('/suppliers/'.$code, $changes + $this->form('/suppliers/'.$code, '#supplier'));
        self::assertResponseRedirects();
    }

    /** @return array<string, string> */
    private static function agreed(string $steps, string $group = 'Glass makers', string $name = 'Glass bonus'): array
    {
        return [
            'name' => $name, 'supplier_group' => $group, 'kind' => 'discount', 'basis' => 'quantity', 'steps' => $steps,
            'first_day' => '2026-11-01', 'last_day' => '2026-12-31',
        ];
    }

    /** @return array{price: float, by: string, taxed: string} of the only line */
    private function line(string $number): array
    {
        $row = $this->connection()->fetchAssociative(
            'SELECT l.price, l.priced_by, COALESCE(l.tax_percent, o.tax_percent) tax FROM order_line l
             JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ? ORDER BY l.position LIMIT 1',
            [$number],
        );
        self::assertIsArray($row);

        return [
            'price' => is_numeric($row['price']) ? (float) $row['price'] : -1.0,
            'by' => is_string($row['priced_by']) ? $row['priced_by'] : '?',
            'taxed' => is_numeric($row['tax']) ? (string) (float) $row['tax'] : '?',
        ];
    }

    public function testWhatAGroupGivesStandsOnOrdersOffersAndTheBoard(): void
    {
        $this->as('mara');
        $before = $this->line($this->begin())['price'];
        $asked = fn (): float => $this->number(
            'SELECT SUM(p.value / p.packs) FROM proposal p JOIN item i ON i.id = p.item_id
             JOIN offer o ON o.id = p.offer_id JOIN supplier s ON s.id = o.supplier_id
             WHERE i.code = ? AND s.code = ? AND p.packs > 0',
            ['JAR-227R', 'VETRASOL'],
        );
        $onBoard = $asked();
        $this->saveSupplier('VETRASOL', ['price_group' => ' glass  makers']);
        $this->post('/agreed-prices', self::agreed('5'));
        self::assertResponseRedirects();
        $this->browser->followRedirect();
        self::assertStringContainsString('Vetrasol Glassworks', $this->text());
        $decides = $this->browser->getCrawler()->filter('.grid-table tbody tr td:last-child')->last()->text();
        self::assertSame('this', trim($decides));

        $line = $this->line($this->begin());
        self::assertEqualsWithDelta(0.95 * $before, $line['price'], 1e-6);
        self::assertSame('Glass bonus: 5 %', $line['by']);
        $this->work();
        self::assertGreaterThan(0.0, $onBoard);
        self::assertEqualsWithDelta(0.95 * $onBoard, $asked(), 0.02, 'planning follows');
        self::assertStringContainsString('Glass bonus', $this->see('/items/'.self::CODE)->text());
        self::assertStringContainsString('Glass bonus', $this->see('/compare/items/'.self::CODE)->text());
    }

    public function testWhatIsMoreParticularHoldsAndAPriceTypedByHandStandsForItself(): void
    {
        $this->as('mara');
        $this->post('/agreed-prices', self::agreed('5', ''));
        $supplier = (string) $this->number("SELECT id FROM supplier WHERE code = 'VETRASOL'");
        $own = ['supplier' => $supplier, 'item' => self::CODE.' · whatever', 'kind' => 'price', 'steps' => '0.5'];
        $this->post('/agreed-prices', $own + self::agreed('', '', 'Only ours'));
        self::assertResponseRedirects();
        $page = (string) $this->browser->getResponse()->headers->get('Location');
        $number = $this->begin();
        $content = $this->number('SELECT pack_content FROM order_line l JOIN purchase_order o ON o.id = l.order_id
            WHERE o.number = ?', [$number]);
        self::assertEqualsWithDelta(0.5 * $content, $this->line($number)['price'], 1e-6);
        self::assertSame('Only ours: 0.5 EUR', $this->line($number)['by']);

        $id = (int) $this->number('SELECT MAX(id) FROM order_line');
        $this->saveOrder($number, ['price' => [$id => '7.77'], 'follow_offer' => [$id => '1']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('was agreed as “Only ours”', $this->text());
        $this->saveOrder($number, ['price' => [$id => '7.77']]);
        self::assertResponseRedirects();
        self::assertSame('', $this->line($number)['by']);

        $this->post($page.'/end');
        self::assertSame('Glass bonus: 5 %', $this->line($this->begin())['by']);
    }

    public function testTheStandingPriceThatFollowsIsTheOneBeforeTheDiscount(): void
    {
        $this->as('mara');
        $this->post('/agreed-prices', self::agreed('20', ''));
        $number = $this->begin('BRENMOOR', 'HIV-NBBP');
        $id = (int) $this->number('SELECT MAX(id) FROM order_line');
        $this->saveOrder($number, ['price' => [$id => '12'], 'follow_offer' => [$id => '1']]);
        self::assertResponseRedirects();
        self::assertSame(15.0, $this->number(
            "SELECT b.price FROM price_break b JOIN offer o ON o.id = b.offer_id JOIN item i ON i.id = o.item_id
             JOIN supplier s ON s.id = o.supplier_id WHERE i.code = 'HIV-NBBP' AND s.code = 'BRENMOOR'
             ORDER BY b.from_packs LIMIT 1",
        ));
        self::assertSame('Glass bonus: 20 %', $this->line($number)['by']);
    }

    public function testWhatCannotBeMeantIsSaidAtItsField(): void
    {
        $this->as('mara');
        $supplier = (string) $this->number("SELECT id FROM supplier WHERE code = 'VETRASOL'");
        foreach (
            [
                [['supplier' => $supplier] + self::agreed('5'), 'for one supplier or for a group'],
                [['item' => 'NO-SUCH'] + self::agreed('5'), 'There is no item “NO-SUCH”'],
                [['item' => self::CODE, 'item_group' => 'Glass'] + self::agreed('5'), 'on one item or on a group'],
                [['kind' => 'price'] + self::agreed('5'), 'for one item only'],
                [self::agreed('150'), 'leaves nothing to pay'],
                [['name' => ' '] + self::agreed('5'), 'Say what it is called'],
                [['last_day' => '2026-10-01'] + self::agreed('5'), 'before it begins'],
                [['basis' => 'value', 'currency' => 'ZZZ'] + self::agreed('5'), 'ZZZ'],
            ] as [$typed, $message]
        ) {
            $page = $this->post('/agreed-prices', $typed);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($message, $page->filter('main')->text());
        }
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM price_term WHERE name = 'Glass bonus'"));
        $this->as('tam');
        $this->browser->request('POST', '/agreed-prices', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testTheSecondOfTwoSeesWhatTheFirstDid(): void
    {
        $this->as('mara');
        $this->post('/agreed-prices', self::agreed('5'));
        $page = (string) $this->browser->getResponse()->headers->get('Location');
        $form = $this->form($page, '#term');
        $this->post($page, ['name' => 'First'] + $form);
        self::assertResponseRedirects();
        $second = $this->post($page, ['name' => 'Second'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this', $second->text());
        self::assertSame('Second', $second->filter('#name')->attr('value'), 'nothing typed is lost');
        self::assertSame(1.0, $this->number("SELECT COUNT(*) FROM price_term WHERE name = 'First'"));
    }

    public function testANewRateOfANameFollowsOnItsDay(): void
    {
        $this->as('mara');
        $this->browser->request('POST', '/settings/taxes', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
        $this->as('rowan');
        $this->saveSupplier('VETRASOL', ['tax_name' => 'standard']);
        self::assertSame('23', $this->line($this->begin())['taxed']);
        $add = fn (string $name, string $rate, string $from) => $this->post(
            '/settings/taxes',
            ['name' => $name, 'rate' => $rate, 'from' => $from],
        );
        $add('standard', '24', '2026-11-24');
        self::assertSame('23', $this->line($this->begin())['taxed'], 'not before its day');
        $add('Standard', '22,5', '2026-11-23');
        self::assertSame('22.5', $this->line($this->begin())['taxed']);
        $add('standard', '25', '2026-11-23');
        self::assertStringContainsString('is 22.5 % from that day already', $this->text());
        $add('5 %', '5', '2026-01-01');
        self::assertStringContainsString('cannot be the name of a tax rate', $this->text());
        $add('food', 'nothing', '');
        self::assertStringContainsString('“nothing” is no tax', $this->text());
        self::assertStringContainsString('Say from which day', $this->text());

        $add('food', 'exempt', '2026-01-01');
        $this->saveSupplier('VETRASOL', ['tax_name' => 'food']);
        $this->post('/settings/taxes/'.(int) $this->number("SELECT id FROM tax_rate WHERE name = 'food'"));
        $page = $this->browser->followRedirect()->text();
        self::assertStringContainsString('Vetrasol Glassworks is taxed at “food”', $page);

        $this->post('/settings/taxes/own', ['own' => 'food']);
        self::assertStringContainsString('“food” is no rate above 0 of today', $this->text());
        $add('ours', '23', '2026-01-01');
        $this->post('/settings/taxes/own', ['own' => 'ours']);
        self::assertResponseRedirects();
        $this->post('/settings/taxes/'.(int) $this->number("SELECT id FROM tax_rate WHERE name = 'ours'"));
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('We account for tax at “ours” ourselves', $page->text());
        self::assertSame('ours', $page->filter('#own-tax option[selected]')->attr('value'));
    }

    public function testAnItemsOwnRateStandsOnItsLineWhereTaxIsChargedAtAll(): void
    {
        $this->as('rowan');
        $edit = '/items/'.self::CODE.'/edit';
        $this->post($edit, ['tax_name' => 'reduced'] + $this->form($edit, '#item'));
        $this->saveSupplier('VETRASOL', ['tax_name' => 'standard']);
        $number = $this->begin();
        self::assertSame('13.5', $this->line($number)['taxed']);
        $id = (int) $this->number('SELECT MAX(id) FROM order_line');
        $this->saveOrder($number, ['tax' => [$id => 'Standard']]);
        self::assertSame('23', $this->line($number)['taxed'], 'a name can be typed');
        $this->saveSupplier('VETRASOL', ['tax_name' => '', 'tax' => '0', 'untaxed' => 'AE']);
        self::assertSame('0', $this->line($this->begin())['taxed'], 'reverse charge goes for all of it');
    }

    public function testDeliveryTermsAreChosenForOneOrder(): void
    {
        $this->as('mara');
        $this->saveSupplier('VETRASOL', ['other_delivery_terms' => "EXW Orlany\r\n\r\n fca Orlany "]);
        $number = $this->begin();
        $choices = $this->see('/orders/'.$number)->filter('#delivery-terms option')->extract(['value']);
        self::assertSame(['DAP Larkmoor', 'EXW Orlany', 'FCA Orlany'], $choices);
        $this->saveOrder($number, ['delivery_terms' => 'FREE Larkmoor']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“FREE” is no rule of Incoterms 2020', $this->text());
        self::assertSame(
            'FREE Larkmoor',
            $this->browser->getCrawler()->filter('[name="delivery_terms"]')->attr('value'),
        );
        $this->saveOrder($number, ['delivery_terms' => 'EXW Orlany']);
        self::assertResponseRedirects();
        $this->saveSupplier('VETRASOL', ['delivery_terms' => 'DDP Larkmoor']);
        $kept = $this->connection()->fetchOne('SELECT delivery_terms FROM purchase_order WHERE number = ?', [$number]);
        self::assertSame('EXW Orlany', $kept, 'what is agreed for an order stays');
        $page = $this->post(
            '/suppliers/VETRASOL',
            ['other_delivery_terms' => 'soon'] + $this->form('/suppliers/VETRASOL', '#supplier'),
        );
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“soon” is no rule', $page->text());
    }

    public function testAnOfferBringsItsChargeOnceAndTakesItAway(): void
    {
        $this->as('mara');
        $offer = (int) $this->number(
            "SELECT o.id FROM offer o JOIN item i ON i.id = o.item_id JOIN supplier s ON s.id = o.supplier_id
             WHERE i.code = 'JAR-370H' AND s.code = 'VETRASOL' LIMIT 1",
        );
        $charges = '/suppliers/VETRASOL/offers/'.$offer.'/charges';
        $this->post($charges, ['adjust_reason' => ['Crate'], 'adjust_amount' => ['much']]);
        self::assertResponseStatusCodeSame(422);
        $this->post($charges, ['adjust_reason' => ['Crate'], 'adjust_amount' => ['12']]);
        self::assertResponseRedirects();
        $charged = fn (string $number): int => substr_count(
            (string) json_encode($this->connection()->fetchOne(
                'SELECT adjustments FROM purchase_order WHERE number = ?',
                [$number],
            )),
            'Crate',
        );
        $number = $this->begin();
        self::assertSame(1, $charged($number));
        $first = (int) $this->number('SELECT MAX(id) FROM order_line');
        $this->saveOrder($number, ['add' => self::CODE, 'add_quantity' => '2', 'add_day' => '2026-12-24']);
        $this->saveOrder($number, ['add' => 'JAR-340R', 'add_quantity' => '2']);
        self::assertSame(1, $charged($number), 'once, however many lines');
        $this->saveOrder($number, ['remove' => [$first => '1']]);
        self::assertSame(0, $charged($number), 'no line with it is left');
    }
}
