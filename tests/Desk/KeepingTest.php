<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Store\Business\NumberSeries;

/** Sites, promises, numbers, fields of our own, the business itself. */
final class KeepingTest extends DeskTestCase
{
    private function id(string $table, string $code): string
    {
        return (string) $this->number('SELECT id FROM '.$table.' WHERE code = ?', [$code]);
    }

    /** @return array<string, string> */
    private function promised(string $item, string $quantity, string $site): array
    {
        return [
            'customer' => 'Whin Top', 'reference' => 'sale 77', 'item' => $item, 'quantity' => $quantity,
            'day' => '2026-12-04', 'site' => $this->id('site', $site),
        ];
    }

    public function testWhatIsPromisedAndNotStockedIsProposedForItselfAndNoMore(): void
    {
        $place = $this->connection()->fetchAssociative(
            "SELECT i.code, o.pack_content content FROM item i JOIN offer_in_force f ON f.item_id = i.id
                AND '2026-11-23' BETWEEN f.from_day AND f.until_day JOIN offer o ON o.id = f.id AND o.rank = 1
             WHERE i.unit = 'EA' AND NOT EXISTS (SELECT 1 FROM stocking t JOIN site s ON s.id = t.site_id
                WHERE t.item_id = i.id AND s.code = 'MILL') AND o.minimum = 1 AND o.multiple = 1
             ORDER BY i.code LIMIT 1",
        );
        self::assertIsArray($place);
        $code = is_string($place['code']) ? $place['code'] : '';
        $content = is_numeric($place['content']) ? (float) $place['content'] : 1.0;
        $wanted = 2 * $content;
        $this->as('tam');
        $this->post('/promises', $this->promised($code.' · whatever', (string) (int) $wanted, 'MILL'));
        self::assertResponseRedirects('/promises');
        $this->work();
        $proposal = fn (): array => (array) $this->connection()->fetchAssociative(
            "SELECT p.reason, p.promised, COALESCE(p.packs * o.pack_content, 0) units, p.moves FROM proposal p
             JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id LEFT JOIN offer o ON o.id = p.offer_id
             WHERE i.code = ? AND s.code = 'MILL'",
            [$code],
        );
        $found = $proposal();
        self::assertSame('rush', $found['reason'] ?? '');
        $bought = is_numeric($found['units'] ?? null) ? (float) $found['units'] : 0.0;
        /** @var list<array{units?: float|int}> $moves */
        $moves = json_decode(is_string($found['moves'] ?? null) ? $found['moves'] : '[]', true);
        self::assertSame($wanted, $bought + array_sum(array_column($moves, 'units')));
        $id = (int) $this->number('SELECT MAX(id) FROM customer_promise');
        $this->post('/promises/'.$id, ['do' => 'delivered']);
        $this->work();
        self::assertArrayNotHasKey('reason', $proposal(), 'nobody waits any more');
        $this->post('/promises/'.$id, ['do' => 'cancelled']);
        self::assertStringContainsString('was delivered already', $this->browser->followRedirect()->text());
        $this->post('/promises/'.$id, ['do' => 'reopen']);
        $this->work();
        self::assertSame('rush', $proposal()['reason'] ?? '');
    }

    public function testAChangeThatCannotBeSaysSoBesideWhatWasTyped(): void
    {
        $this->as('mara');
        $this->post('/promises', $this->promised('JAR-340R', '24', 'DEPOT'));
        $id = (int) $this->number('SELECT MAX(id) FROM customer_promise');
        $page = $this->post('/promises/'.$id, ['customer' => 'Sallow', 'quantity' => 'lots'] + $this->promised('', '',
            'DEPOT'));
        self::assertResponseStatusCodeSame(422);
        $change = $page->filter('form[action="/promises/'.$id.'"]')->last();
        self::assertStringContainsString('“lots”', $change->filter('.error')->text());
        self::assertSame('lots', $change->filter('[name="quantity"]')->attr('value'));
        self::assertSame('Sallow', $change->filter('[name="customer"]')->attr('value'));
        self::assertSame(24.0, $this->number('SELECT quantity FROM customer_promise WHERE id = ?', [$id]));
    }

    public function testAPromiseThatCannotBeIsNamedFieldByField(): void
    {
        $this->as('mara');
        $page = $this->post('/promises', ['quantity' => 'some'] + $this->promised('NOTHING', '', 'DEPOT'));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('There is no item “NOTHING”', $page->filter('#item_error')->text());
        self::assertStringContainsString('some', $page->filter('#quantity_error')->text());
        self::assertSame('Whin Top', $page->filter('#customer')->attr('value'));
        foreach (['0', '-3', '1.5'] as $quantity) {
            $page = $this->post('/promises', $this->promised('JAR-340R', $quantity, 'DEPOT'));
            self::assertCount(1, $page->filter('#quantity_error'), $quantity);
        }
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM customer_promise WHERE reference = 'sale 77'"));
    }

    public function testASiteIsOpenedFilledWithBinsAndClosedWhenEmpty(): void
    {
        $this->as('rowan');
        $site = ['code' => 'barn', 'name' => 'Barn', 'kind' => 'depot', 'bins' => 'A-1 A-2 Größe/3',
            'bin_kind' => 'shelf'];
        $this->post('/settings/sites', $site);
        self::assertResponseRedirects('/settings/sites/BARN');
        self::assertSame(3.0, $this->number('SELECT COUNT(*) FROM bin WHERE site_id = ?', [$this->id('site', 'BARN')]));
        $this->post('/settings/sites', $site);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('There is a site BARN already', $this->text());
        $this->post('/settings/sites/BARN',
            ['name' => 'Barn', 'kind' => 'depot', 'bins' => 'a-1', 'bin_kind' => 'shelf']);
        self::assertStringContainsString('has a bin A-1 already', $this->text());
        $this->post('/settings/sites/DEPOT',
            ['name' => 'Depot', 'kind' => 'depot', 'bin_kind' => 'shelf', 'supplied_by' => $this->id('site', 'BARN')]);
        $this->post('/settings/sites/BARN',
            ['name' => 'Barn', 'kind' => 'depot', 'bin_kind' => 'shelf', 'supplied_by' => $this->id('site', 'DEPOT')]);
        self::assertStringContainsString('would in the end be supplied by itself', $this->text());
        $this->post('/settings/sites/DEPOT/close');
        self::assertStringContainsString('cannot be closed yet: stock lies there',
            $this->browser->followRedirect()->text());
        $this->post('/settings/sites/BARN/close');
        self::assertStringNotContainsString('Barn', $this->see('/orders/PO-1082')->filter('.tools')->text());
        $this->as('mara');
        $this->post('/settings/sites', ['code' => 'X'] + $site);
        self::assertResponseStatusCodeSame(403);
    }

    public function testABinInUseStays(): void
    {
        $this->as('rowan');
        $bin = (int) $this->number('SELECT MIN(bin_id) FROM stocking t JOIN site s ON s.id = t.site_id WHERE s.code =
            ?', ['DEPOT']);
        $this->post('/settings/sites/DEPOT/bin-out', ['bin' => (string) $bin]);
        self::assertMatchesRegularExpression('/is where .* put; give/', $this->browser->followRedirect()->text());
        $this->post('/settings/sites/MILL/bin-out', ['bin' => (string) $bin]);
        self::assertResponseStatusCodeSame(404, 'a bin of another site');
        self::assertSame(1.0, $this->number('SELECT COUNT(*) FROM bin WHERE id = ?', [$bin]));
    }

    public function testNumbersHaveAPrefixGoByYearAndAreNeverGivenOutTwice(): void
    {
        $take = fn (string $day): string => NumberSeries::take($this->connection(), 'PO', new \DateTimeImmutable($day));
        $this->as('rowan');
        $next = (int) $this->number("SELECT next FROM number_series WHERE name = 'PO'");
        $typed = ['sentences' => "Ring the bell.\n\nNo pallets over 1.2 m."];
        foreach (array_keys(NumberSeries::WORDS) as $name) {
            $typed += ['prefix-'.$name => $name, 'next-'.$name => '2000'];
        }
        $typed['seen'] = (string) $this->see('/settings/paper')->filter('[name="seen"]')->attr('value');
        $this->post('/settings/paper', ['next-PO' => (string) ($next - 1)] + $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('was given out', $this->text());
        $this->post('/settings/paper', ['prefix-PO' => 'r'] + $typed);
        self::assertStringContainsString('stands before two kinds of papers', $this->text());
        $this->post('/settings/paper', ['prefix-PO' => 'LB', 'next-PO' => '7', 'year-PO' => '1'] + $typed);
        self::assertResponseRedirects();
        self::assertStringContainsString('LB-2026-0007', $this->browser->followRedirect()->text());
        self::assertSame(
            ['LB-2026-0007', 'LB-2026-0008', 'LB-2027-0001', 'LB-2027-0002'],
            [$take('2026-12-30'), $take('2026-12-31'), $take('2027-01-01'), $take('2027-01-02')],
        );
        $page = $this->see('/orders/PO-1082');
        self::assertStringContainsString('Ring the bell.',
            $page->filter('[name^="sentence"]')->closest('label')?->text() ?? '');
    }

    public function testTheSecondOfTwoAtThePapersIsToldAndANumberTakenMeanwhileIsInNobodysWay(): void
    {
        $this->as('rowan');
        $form = $this->see('/settings/paper')->filter('#paper')->form();
        NumberSeries::take($this->connection(), 'PO', new \DateTimeImmutable('2026-11-23'));
        $form['sentences'] = 'Ring the bell.';
        $this->browser->submit($form);
        self::assertResponseRedirects();
        $form['sentences'] = 'Ring twice.';
        $page = $this->browser->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody else changed this page meanwhile', $page->text());
        self::assertSame('Ring twice.', $page->filter('#sentences')->text());
        $this->browser->submit($page->filter('#paper')->form());
        self::assertResponseRedirects();
        self::assertSame('Ring twice.', $this->see('/settings/paper')->filter('#sentences')->text());
    }

    public function testAFieldOfOurOwnIsFilledCheckedFoundAndOnPaper(): void
    {
        $this->as('rowan');
        $this->post('/settings/fields',
            ['thing' => 'order', 'kind' => 'choice', 'label' => 'Gate', 'choices' => 'one']);
        self::assertStringContainsString('two answers or more', $this->text());
        $there = fn (): float => $this->number('SELECT COUNT(*) FROM own_field');
        $before = $there();
        foreach ([['label' => str_repeat('g', 41)], ['label' => 'Gate', 'on_paper' => str_repeat('y', 201)]] as $long) {
            $this->post('/settings/fields', ['thing' => 'order', 'kind' => 'text', 'choices' => ''] + $long);
            self::assertResponseStatusCodeSame(422);
            self::assertSame($before, $there(), 'what is too long is not cut short and kept');
        }
        $this->post('/settings/fields', [
            'thing' => 'order', 'kind' => 'choice', 'label' => 'Gate', 'choices' => "north\nsouth", 'on_paper' => '1',
        ]);
        $this->post('/settings/fields',
            ['thing' => 'order', 'kind' => 'number', 'label' => 'Pallets', 'choices' => '']);
        $this->post('/settings/fields', ['thing' => 'order', 'kind' => 'day', 'label' => 'gate', 'choices' => '']);
        self::assertStringContainsString('There is a field “Gate” there already', $this->text());
        $field = fn (string $label): int => (int) $this->number('SELECT id FROM own_field WHERE label = ?', [$label]);
        $order = (int) $this->number("SELECT id FROM purchase_order WHERE number = 'PO-1082'");
        $this->as('mara');
        $page = $this->post('/own/order/'.$order, ['own' => [$field('Gate') => 'west', $field('Pallets') => 'few']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('none of the answers', $page->text());
        self::assertStringContainsString('few', $page->filter('[aria-invalid]')->last()->attr('value') ?? '');
        $this->post('/own/order/'.$order, ['own' => [$field('Gate') => 'south', $field('Pallets') => '3']]);
        self::assertResponseIsSuccessful();
        self::assertSame('3', $this->see('/orders/PO-1082')->filter('#own-'.$field('Pallets'))->attr('value'));
        self::assertStringContainsString('PO-1082', $this->see('/find?q=south')->text());
        $this->as('iris');
        $this->post('/own/order/'.$order, ['own' => [$field('Gate') => 'north']]);
        self::assertResponseStatusCodeSame(403);
        $this->as('mara');
        $this->post('/own/order/999999999', ['own' => [$field('Gate') => 'north']]);
        self::assertResponseStatusCodeSame(404);
    }

    public function testOwnFieldsOfADeliveryAreFilledByWhoSeesItsSite(): void
    {
        $delivery = (int) $this->number(
            "SELECT MAX(d.id) FROM delivery d JOIN site s ON s.id = d.site_id WHERE s.code = 'DEPOT'",
        );
        $this->as('tam');
        $this->post('/own/delivery/'.$delivery, ['own' => []]);
        self::assertResponseIsSuccessful();
        $this->connection()->executeStatement(
            "UPDATE person SET seen_sites = (SELECT CONCAT('[', id, ']') FROM site WHERE code = 'MILL')
             WHERE email LIKE 'tam@%'",
        );
        $this->as('tam');
        $this->post('/own/delivery/'.$delivery, ['own' => []]);
        self::assertResponseStatusCodeSame(403);
    }

    public function testTheBusinessIsDescribedAnewAndTheDemoGoesOnlyByItsOwner(): void
    {
        $this->as('rowan');
        $facts = [
            'name' => 'Larkmoor Bees', 'address' => 'Heather Road 12', 'country' => 'IE', 'tax_number' => 'IE1',
            'mark' => '.',
            'order_cost' => '3', 'holding' => '25', 'foot' => 'Thank you.',
        ];
        $this->post('/settings/business', ['holding' => '250'] + $facts);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“250 %” a year is out of range', $this->text());
        $this->post('/settings/business', $facts);
        self::assertResponseRedirects();
        self::assertStringContainsString('Larkmoor Bees', $this->see('/settings/business')->text());
        $this->as('mara');
        $this->post('/settings/demo');
        self::assertResponseStatusCodeSame(403);
        $this->connection()->executeStatement('UPDATE business SET demo = 0');
        $this->entities()->clear();
        $this->as('rowan');
        self::assertCount(0, $this->see('/')->filter('.demo'));
        $this->post('/settings/demo');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('your own business', $this->text());
    }

    /** @return iterable<string, array{string, string, string, string}> page, form, what the first does, what is then */
    public static function pagesOfTwo(): iterable
    {
        yield 'a site' => ['/settings/sites/DEPOT', 'form#site', "UPDATE site SET address = 'Mill' WHERE id = 1",
            'Mill'];
        yield 'a person' => ['/settings/people/2', 'form#person', "UPDATE person SET name = 'Mara New' WHERE id = 2",
            'Mara New'];
        yield 'the business' => ['/settings/business', 'form#business', "UPDATE business SET tax_number = 'IE 77'",
            'IE 77'];
    }

    #[DataProvider('pagesOfTwo')]
    public function testTheSecondOfTwoSeesWhatTheFirstChanged(
        string $page,
        string $form,
        string $query,
        string $now,
    ): void {
        $this->as('rowan');
        $typed = $this->see($page)->filter($form)->form();
        $name = $typed->getPhpValues()['name'];
        self::assertIsString($name);
        $this->connection()->executeStatement($query);
        $this->browser->submit($typed, ['name' => $name.' & Co']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody else changed this meanwhile', $this->text());
        self::assertStringContainsString('is “'.$now.'” now', $this->text());
        $again = $this->browser->getCrawler()->filter($form)->form();
        self::assertSame($name.' & Co', $again->getPhpValues()['name'], 'nothing typed is lost');
        $this->browser->submit($again);
        self::assertResponseRedirects();
    }
}
