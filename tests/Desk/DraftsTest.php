<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** Drafts looked through and sent together. */
final class DraftsTest extends DeskTestCase
{
    /** @return array<string, string> states by number */
    private function states(): array
    {
        /** @var array<string, string> $states */
        $states = $this->connection()->fetchAllKeyValue(
            "SELECT number, state FROM purchase_order WHERE number IN ('PO-1082', 'PO-1090', 'PO-1091')",
        );

        return $states;
    }

    /** Two more drafts, the first small, the second above Mara’s limit. */
    protected function setUp(): void
    {
        parent::setUp();
        foreach (['PO-1090' => 2, 'PO-1091' => 900] as $number => $packs) {
            $this->connection()->executeStatement(
                "INSERT INTO purchase_order (number, state, supplier_id, buyer_id, currency, home_currency,
                    foreign_for_one, tax_percent, tax_category, adjustments, their_reference, reminder, deliver_to,
                    carrier, project, created_at, wanted_on, note, revision, version)
                 SELECT ?, 'draft', supplier_id, buyer_id, currency, home_currency, foreign_for_one, tax_percent,
                    tax_category, '[]', '', '', '', '', '', created_at, '2026-12-20', '', 0, 1
                 FROM purchase_order WHERE number = 'PO-1080'",
                [$number],
            );
            $this->connection()->executeStatement(
                "INSERT INTO order_line (order_id, item_id, site_id, offer_id, position, description, supplier_code,
                    pack_name, pack_content, packs, price, list_price, discount_percent, discount_each, note_to_them,
                    note_to_us, received, closed_short)
                 SELECT (SELECT id FROM purchase_order WHERE number = ?), item_id, site_id, offer_id, 1, description,
                    supplier_code, pack_name, pack_content, ?, price, price, 0, 0, '', '', 0, 0
                 FROM order_line WHERE order_id = (SELECT id FROM purchase_order WHERE number = ?) LIMIT 1",
                [$number, $packs, 'PO-1080'],
            );
        }
    }

    /** @return array<string, mixed> the page’s form, every box that can be ticked ticked */
    private function form(): array
    {
        /** @var array<string, mixed> $values */
        $values = $this->see('/orders/drafts')->filter('#drafts')->form()->getPhpValues();
        unset($values['_token']);

        return $values;
    }

    public function testWhatIsTickedGoesOutAndWhatIsOverTheLimitWaits(): void
    {
        $this->as('mara');
        $form = $this->form();
        self::assertStringContainsString('no email address', $this->text(), 'what has to be mended is named');
        self::assertStringContainsString('over your limit', $this->text());
        $this->post('/orders/drafts', $form);
        self::assertResponseRedirects('/orders');
        self::assertSame(
            ['PO-1082' => 'draft', 'PO-1090' => 'sent', 'PO-1091' => 'awaiting-approval'],
            $this->states(),
        );
        $this->browser->followRedirect();
        self::assertStringContainsString('On the way: PO-1090.', $this->text());
        self::assertStringContainsString('Awaiting approval: PO-1091.', $this->text());
    }

    public function testOneThatChangedMeanwhileHoldsUpNoOther(): void
    {
        $this->as('rowan');
        $form = $this->form();
        $this->connection()->executeStatement("UPDATE purchase_order SET version = 7 WHERE number = 'PO-1090'");
        $this->entities()->clear();
        $this->post('/orders/drafts', $form);
        self::assertResponseRedirects('/orders/drafts');
        self::assertSame(['PO-1082' => 'draft', 'PO-1090' => 'draft', 'PO-1091' => 'sent'], $this->states());
        $this->browser->followRedirect();
        self::assertStringContainsString('PO-1090 was changed by somebody else meanwhile', $this->text());
    }

    public function testNothingTickedSendsNothing(): void
    {
        $this->as('rowan');
        $this->post('/orders/drafts', ['chosen' => []] + $this->form());
        self::assertResponseRedirects('/orders/drafts');
        self::assertSame(['draft', 'draft', 'draft'], array_values($this->states()));
    }

    public function testTheBookkeeperOnlyLooks(): void
    {
        $this->as('iris');
        $page = $this->see('/orders/drafts');
        self::assertCount(0, $page->filter('.strip button'));
        $this->post('/orders/drafts', ['chosen' => [1 => '1']]);
        self::assertResponseStatusCodeSame(403);
    }
}
