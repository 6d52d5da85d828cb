<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Work\Planning\RunPlanning;

final class ReorderTest extends DeskTestCase
{
    private function due(
        string $where = "o.multiple = 1 AND o.minimum = 1 AND o.pack_content > 1 AND i.category <> 'x'",
    ): SavedProposal {
        $id = $this->connection()->fetchOne(
            'SELECT p.id FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN item i ON i.id = p.item_id
                WHERE p.draft_id IS NULL AND p.chosen = 1 AND p.reason LIKE \'below%\' AND '.
                $where.
                ' ORDER BY p.id LIMIT 1',
        );
        self::assertIsInt($id);
        $proposals = self::getContainer()->get(Proposals::class);
        self::assertInstanceOf(Proposals::class, $proposals);
        $proposal = $proposals->find($id);
        self::assertNotNull($proposal);

        return $proposal;
    }

    public function testTheBoardShowsWhatTheRunSavedAndTheWhyAddsUp(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $why = $this->see('/reorder/'.$proposal->id.'/why');
        self::assertResponseIsSuccessful();
        $lines = $why
            ->filter('table.sum tr')
            ->each(
                static fn ($row): array => [
                    $row->filter('td')->first()->text(),
                    str_replace([' ', ','], '', $row->filter('td')->last()->text()),
                ],
            );
        $sum = 0.0;
        foreach ($lines as [$label, $figure]) {
            if ('Needed' === $label) {
                self::assertEqualsWithDelta($sum, (float) $figure, 1e-6);

                break;
            }
            $sum += (float) str_replace(['−', '+'], ['-', ''], $figure);
        }
        self::assertContains('Needed', array_column($lines, 0));
        self::assertCount(1, $why->filter('svg polygon'));
    }

    public function testAQuantityIsSavedAndTheGroupAndTheStripFollow(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $this->post(
            '/reorder/'.$proposal->id,
            ['quantity' => [$proposal->id => '7']],
            ['HTTP_HX-Request' => 'true', 'HTTP_HX-Trigger-Name' => 'quantity['.$proposal->id.']'],
        );
        self::assertResponseIsSuccessful();
        $answer = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('id="strip" hx-swap-oob', $answer);
        self::assertStringContainsString('id="group-'.$proposal->offer()?->supplier->code.'"', $answer);
        self::assertSame(7.0, $this->number('SELECT packs FROM proposal WHERE id = ?', [$proposal->id]));
        self::assertSame(
            1.0,
            $this->number('SELECT chosen FROM proposal WHERE id = ?', [$proposal->id]),
            'a quantity typed ticks the row',
        );
    }

    public function testWrongQuantitiesAreNamedBesideTheirPlaceAndKeptAsTyped(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        foreach (['-3' => 'is below zero', 'lots' => 'is not a number', '1.5' => 'do not split'] as $typed => $reason) {
            $this->post(
                '/reorder/'.$proposal->id,
                ['quantity' => [$proposal->id => $typed]],
                ['HTTP_HX-Request' => 'true'],
            );
            self::assertResponseStatusCodeSame(422);
            $answer = (string) $this->browser->getResponse()->getContent();
            self::assertStringContainsString('value="'.$typed.'"', $answer);
            self::assertStringContainsString($reason, $answer);
            self::assertStringContainsString('aria-invalid="true"', $answer);
        }
        self::assertSame(
            $proposal->proposed->toFloat(),
            $this->number('SELECT packs FROM proposal WHERE id = ?', [$proposal->id]),
        );
    }

    public function testASavedRowWithoutAScriptLeadsBackToTheBoard(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $this->post('/reorder/'.$proposal->id, [
            'quantity' => [$proposal->id => '9'],
            'chosen' => [$proposal->id => '1'],
        ]);
        self::assertResponseRedirects('/reorder?why='.$proposal->id);
        self::assertSame(
            '9',
            $this->see('/reorder?q='.$proposal->item->code)
                ->filter('#quantity-'.$proposal->id)
                ->attr('value'),
        );
        $this->post('/reorder/'.$proposal->id, ['quantity' => [$proposal->id => 'nine']]);
        $this->browser->followRedirect();
        self::assertStringContainsString(
            '“nine” is not a number',
            $this->browser->getCrawler()->filter('.note.short')->text(),
        );
    }

    public function testChosenProposalsBecomeOneDraftForEachSupplierAndOnlyOnce(): void
    {
        $this->as('mara');
        $before = $this->number('SELECT COUNT(*) FROM purchase_order');
        $suppliers = $this->number(
            'SELECT COUNT(DISTINCT o.supplier_id) FROM proposal p JOIN offer o ON o.id = p.offer_id
                WHERE p.chosen = 1 AND p.listed = 1 AND p.draft_id IS NULL',
        );
        $lines = $this->number('SELECT COUNT(*) FROM proposal WHERE chosen = 1 AND listed = 1 AND draft_id IS NULL');
        $this->post('/reorder/draft');
        $this->browser->followRedirect();
        self::assertStringContainsString('Drafted: PO-', $this->text());
        self::assertSame($before + $suppliers, $this->number('SELECT COUNT(*) FROM purchase_order'));
        self::assertSame(
            $lines,
            $this->number(
                "SELECT COUNT(*) FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.id > (SELECT id
                    FROM purchase_order WHERE number = 'PO-1082')",
            ),
        );
        $this->post('/reorder/draft');
        $this->browser->followRedirect();
        self::assertStringContainsString('Nothing is chosen, or it has been drafted already', $this->text());
        self::assertSame($before + $suppliers, $this->number('SELECT COUNT(*) FROM purchase_order'));
    }

    public function testOneWrongRowDraftsNothingAndLosesNothing(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $before = $this->number('SELECT COUNT(*) FROM purchase_order');
        $this->post('/reorder/draft', ['quantity' => [$proposal->id => '2.5'], 'chosen' => [$proposal->id => '1']]);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(
            '2.5',
            $this->browser
                ->getCrawler()
                ->filter('#quantity-'.$proposal->id)
                ->attr('value'),
        );
        self::assertSame($before, $this->number('SELECT COUNT(*) FROM purchase_order'));
    }

    public function testAfterDraftingANewRunDoesNotProposeTheSameAgain(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $this->post('/reorder/draft');
        $planner = self::getContainer()->get(RunPlanning::class);
        self::assertInstanceOf(RunPlanning::class, $planner);
        $planner->again();
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM proposal WHERE chosen = 1 AND draft_id IS NOT NULL'));
        self::assertSame(
            1.0,
            $this->number(
                'SELECT COUNT(*) FROM proposal WHERE item_id = ? AND site_id = ? AND draft_id IS NOT NULL
                    AND chosen = 0',
                [$proposal->item->id, $proposal->site->id],
            ),
        );
    }

    public function testLongerCoverOrdersMore(): void
    {
        $this->as('mara');
        $total = function (string $cover): float {
            $this->post('/reorder/calculate', ['start' => 'cover', 'days' => $cover]);
            self::assertResponseRedirects('/reorder');

            return $this->number(
                'SELECT SUM(p.packs * o.pack_content) FROM proposal p JOIN offer o ON o.id = p.offer_id',
            );
        };
        self::assertLessThan($total('56'), $total('7'));
    }

    public function testAnItemNobodySellsStandsApartInsteadOfVanishing(): void
    {
        $this->as('mara');
        $proposal = $this->due();
        $code = $proposal->item->code;
        $this->connection()->executeStatement("UPDATE offer SET valid_until = '2020-01-01' WHERE item_id = ?", [
            $proposal->item->id,
        ]);
        $this->post('/reorder/calculate');
        $this->see('/reorder?q='.$code);
        self::assertStringContainsString('Nobody sells these yet', $this->text());
        self::assertStringContainsString($code, $this->browser->getCrawler()->filter('section')->last()->text());
    }

    public function testLookingAtOneSiteShowsOnlyItsRows(): void
    {
        $this->as('mara');
        $site = $this->number("SELECT id FROM site WHERE code = 'MILL'");
        $this->post('/look-at', ['site' => (string) (int) $site]);
        $rows = $this->see('/reorder')->filter('tr[data-row] .code')->each(static fn ($row): string => $row->text());
        self::assertNotSame([], $rows);
        foreach ($rows as $row) {
            self::assertStringContainsString('Millbank', $row);
        }
    }

    public function testDraftingBelowAMinimumAsksFirst(): void
    {
        $this->as('rowan');
        $ask = fn (): ?string => $this->see('/reorder')->filter('.strip .btn.go')->attr('data-ask');
        $this->connection()->executeStatement('UPDATE supplier SET minimum_value = NULL, minimum_kg = NULL,
            minimum_packs = NULL');
        self::assertNull($ask(), 'nothing is below its minimum');
        $chosen = $this->number(
            "SELECT SUM(p.value) FROM proposal p JOIN offer o ON o.id = p.offer_id
                JOIN supplier s ON s.id = o.supplier_id
                WHERE s.code = 'VETRASOL' AND p.listed = 1 AND p.chosen = 1 AND p.draft_id IS NULL",
        );
        $this->connection()->executeStatement(
            "UPDATE supplier SET minimum_value = ? WHERE code = 'VETRASOL'",
            [ceil($chosen) + 39],
        );
        self::assertStringContainsString('Vetrasol Glassworks is', (string) $ask());
        self::assertMatchesRegularExpression('/(39|40) short of their minimum/', (string) $ask());
        $this->connection()->executeStatement(
            "UPDATE supplier SET minimum_value = ? WHERE code = 'VETRASOL'",
            [floor($chosen)],
        );
        self::assertNull($ask(), 'a minimum just reached');
    }
}
