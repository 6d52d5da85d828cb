<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** What a colleague asks for, and what becomes of it. */
final class RequisitionsTest extends DeskTestCase
{
    /** @param array<string, string> $typed */
    private function ask(array $typed = []): void
    {
        $this->post('/requisitions', $typed + [
            'words' => 'JAR-370H · Hex jar 370 ml',
            'quantity' => '30',
            'site' => '1',
            'wanted' => '2026-12-04',
            'why' => 'the school fair',
        ]);
    }

    private function id(): int
    {
        return (int) $this->number('SELECT MAX(id) FROM requisition');
    }

    public function testAskedFromTheStockroomPutOnAnOrderAndSeenByWhoAsked(): void
    {
        $this->as('tam');
        self::assertStringContainsString('JAR-370H', $this->see('/requisitions/items?words=hex+370')->text());
        $this->ask();
        self::assertResponseRedirects('/requisitions');
        $page = $this->see('/requisitions');
        self::assertStringContainsString('1 of yours with a buyer', $page->text());
        self::assertCount(0, $page->filter('button[formaction$="/order"]'), 'deciding is for buyers');
        $this->browser->request('POST', '/requisitions/'.$this->id().'/order', ['supplier' => 'LUMEN']);
        self::assertResponseStatusCodeSame(403);

        $this->as('mara');
        self::assertStringContainsString('Tam asks for 30 Hex jar', $this->see('/')->text());
        $page = $this->see('/requisitions');
        $sellers = $page
            ->filter('.wish select[name="supplier"] > option')
            ->each(static fn ($one): ?string => $one->attr('value'));
        self::assertContains('LUMEN', $sellers, 'who offers it');
        self::assertNotContains('BRENMOOR', $sellers);
        $before = (int) $this->number("SELECT COUNT(*) FROM order_line l JOIN purchase_order o ON o.id = l.order_id
            WHERE o.number = 'PO-1082'");
        $this->post('/requisitions/'.$this->id().'/order', ['supplier' => 'LUMEN']);
        self::assertResponseRedirects('/orders/PO-1082');
        $line = $this->connection()->fetchAssociative(
            "SELECT l.packs * l.pack_content units, l.note_to_us, l.wanted_on, l.position FROM order_line l
             JOIN purchase_order o ON o.id = l.order_id WHERE o.number = 'PO-1082' ORDER BY l.position DESC LIMIT 1",
        );
        self::assertIsArray($line);
        self::assertSame('for Tam: the school fair', $line['note_to_us']);
        self::assertSame('2026-12-04', $line['wanted_on']);
        self::assertGreaterThanOrEqual(30, $line['units'], 'whole packs that hold what was asked for');
        self::assertSame($before + 1, $line['position']);

        $this->post('/requisitions/'.$this->id().'/no', ['reason' => 'Too late.']);
        self::assertStringContainsString('Mara decided it already', $this->see('/requisitions')->text());
        $this->as('tam');
        $page = $this->see('/requisitions')->text();
        self::assertStringContainsString('PO-1082', $page);
        self::assertStringContainsString('draft', $page);
    }

    public function testANoHasAReasonAndWhoAskedMayTakeItBackUntilThen(): void
    {
        $this->as('tam');
        $this->ask(['words' => 'A kettle for the shop', 'quantity' => '1', 'wanted' => '']);
        self::assertSame(1.0, $this->number('SELECT item_id IS NULL FROM requisition WHERE id = ?', [$this->id()]));
        $this->as('mara');
        $this->post('/requisitions/'.$this->id().'/no', ['reason' => '']);
        self::assertStringContainsString('Say why not; Tam reads it.', $this->see('/requisitions')->text());
        $this->post('/requisitions/'.$this->id().'/back');
        self::assertStringContainsString('Only who asked can take it back', $this->see('/requisitions')->text());
        $this->post('/requisitions/'.$this->id().'/no', ['reason' => 'There is one in the yard.']);
        $this->as('tam');
        self::assertStringContainsString('no: There is one in the yard.', $this->see('/requisitions')->text());
        $this->ask(['words' => 'A second kettle', 'quantity' => '1']);
        $this->post('/requisitions/'.$this->id().'/back');
        self::assertSame(
            'withdrawn',
            $this->connection()->fetchOne('SELECT state FROM requisition WHERE id = ?', [$this->id()]),
        );
    }

    public function testWhatNobodySellsIsAskedForInARoundOrStandsAsText(): void
    {
        $this->as('mara');
        $this->ask(['words' => 'A kettle', 'quantity' => '2']);
        $this->post('/requisitions/'.$this->id().'/quotes');
        self::assertResponseRedirects();
        $this->browser->followRedirect();
        self::assertStringContainsString('A kettle', $this->text());
        $this->ask(['words' => 'A kettle', 'quantity' => '2']);
        $this->post('/requisitions/'.$this->id().'/order', ['supplier' => '']);
        self::assertStringContainsString('From whom?', $this->see('/requisitions')->text());
        $this->post('/requisitions/'.$this->id().'/order', ['supplier' => 'OSTREL']);
        $this->browser->followRedirect();
        self::assertStringContainsString('A kettle', $this->text());
        self::assertStringContainsString('free text', $this->text());
    }

    public function testBadInputStandsBesideItsFieldAndNothingTypedIsLost(): void
    {
        $this->as('tam');
        $this->ask(['words' => '', 'quantity' => 'ten', 'wanted' => '2026-11-01']);
        self::assertResponseStatusCodeSame(422);
        foreach (['Say what is wanted', '“ten” is not a number', '1 Nov 2026 is over'] as $words) {
            self::assertStringContainsString($words, $this->text());
        }
        self::assertSame('the school fair', $this->browser->getCrawler()->filter('input[name="why"]')->attr('value'));
        $this->ask(['quantity' => '0']);
        self::assertStringContainsString('How many are wanted? Expected above 0.', $this->text());
    }
}
