<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Work\Sourcing\Correspondents;

/** Comparing, sharing out a basket, asking for quotes and answering them, agreements. */
final class CompareTest extends DeskTestCase
{
    public function testTheBoardOfAnItemFollowsTheQuantityAndAddsUp(): void
    {
        $this->as('mara');
        $page = $this->see('/compare/items/JAR-370H?units=576');
        self::assertResponseIsSuccessful();
        self::assertCount(3, $page->filter('article'));
        self::assertStringContainsString('1 EUR = ', $this->text());
        // Every card's sum adds up to what stands above it.
        foreach ($page->filter('article')->each(static fn (Crawler $card): Crawler => $card) as $card) {
            $parts = $card
                ->filter('.sum tr:not(.total) td:last-child')
                ->each(static fn (Crawler $cell): float => (float) str_replace(['−', ','], ['-', ''], $cell->text()));
            self::assertEqualsWithDelta(
                (float) str_replace(',', '', $card->filter('.sum .total td:last-child')->text()),
                array_sum($parts),
                0.04,
            );
        }
        $dearest = self::landed($page);
        $sorted = $dearest;
        sort($sorted);
        self::assertSame($sorted, $dearest);
        $fragment = $this->browser->request(
            'GET',
            '/compare/items/JAR-370H?units=24',
            [],
            [],
            ['HTTP_HX-Request' => 'true', 'HTTP_HX-Target' => 'board'],
        );
        self::assertCount(0, $fragment->filter('header.run'));
        self::assertGreaterThan($dearest[0], self::landed($fragment)[0]);
    }

    public function testWithoutAPlaceAllSitesAreComparedForWithOneOfThemForItAlone(): void
    {
        $this->as('mara');
        $item = $this->connection()->fetchOne(
            'SELECT i.code FROM proposal p JOIN item i ON i.id = p.item_id JOIN offer o ON o.item_id = i.id
                WHERE p.draft_id IS NULL AND p.packs > 0 GROUP BY i.id HAVING COUNT(DISTINCT p.site_id) > 1
                AND COUNT(DISTINCT o.supplier_id) > 1 ORDER BY i.code LIMIT 1',
        );
        self::assertIsString($item);
        $sum = fn (string $what, string $where = ''): float => $this->number(
            "SELECT SUM($what) FROM proposal p JOIN offer o ON o.id = p.offer_id
                WHERE p.item_id = (SELECT id FROM item WHERE code = ?) $where",
            [$item],
        );
        $said = function (string $path): array {
            $page = $this->see($path);
            self::assertSame(1, preg_match('/Uses ([\d.,]+) a week; (?:lasts ([\d,]+) days)?/', $this->text(), $found));

            return [
                (float) str_replace(',', '', (string) $page->filter('#units')->attr('value')),
                (float) str_replace(',', '', $found[1]),
                (float) str_replace(',', '', $found[2] ?? '0'),
            ];
        };
        [$units, $weekly, $lasts] = $said('/compare/items/'.$item);
        self::assertEqualsWithDelta($sum('p.packs * o.pack_content'), $units, 0.01);
        self::assertEqualsWithDelta($sum('p.forecast_per_week'), $weekly, 0.06);
        $there = max(0.0, $sum('p.on_hand - p.promised + p.coming'));
        self::assertEqualsWithDelta(7 * $there / $sum('p.forecast_per_week'), $lasts, 0.6);
        $id = (int) $this->number(
            'SELECT MIN(p.id) FROM proposal p JOIN item i ON i.id = p.item_id WHERE i.code = ? AND p.packs > 0',
            [$item],
        );
        [$here, $weeklyHere] = $said('/compare/items/'.$item.'?for='.$id);
        self::assertEqualsWithDelta($sum('p.packs * o.pack_content', 'AND p.id = '.$id), $here, 0.01);
        self::assertEqualsWithDelta($sum('p.forecast_per_week', 'AND p.id = '.$id), $weeklyHere, 0.06);
        self::assertGreaterThan($here, $units);
    }

    public function testAQuantityOfNothingIsRefusedBesideItsField(): void
    {
        $this->as('mara');
        $page = $this->see('/compare/items/JAR-370H?units=a%20lot');
        self::assertResponseStatusCodeSame(422);
        self::assertSame('a lot', $page->filter('#units')->attr('value'));
        self::assertStringContainsString('“a lot”', $page->filter('#units-error')->text());
    }

    public function testBuyHereGoesIntoTheProposal(): void
    {
        $this->as('mara');
        [$id, $offer] = $this->proposalWithAnotherOffer();
        $code = $this->string('SELECT i.code FROM proposal p JOIN item i ON i.id = p.item_id WHERE p.id = ?', [$id]);
        $this->post('/compare/items/'.$code.'/buy', [
            'for' => (string) $id,
            'offer' => (string) $offer,
            'units' => '30',
        ]);
        self::assertResponseRedirects('/reorder?why='.$id);
        self::assertSame((float) $offer, $this->number('SELECT offer_id FROM proposal WHERE id = ?', [$id]));
        self::assertGreaterThanOrEqual(
            30.0,
            $this->number(
                'SELECT p.packs * o.pack_content FROM proposal p JOIN offer o ON o.id = p.offer_id WHERE p.id = ?',
                [$id],
            ),
        );
    }

    public function testTheBasketIsNoDearerThanWhatIsChosenAndCanBeApplied(): void
    {
        $this->as('rowan');
        $page = $this->see('/compare/basket');
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('Who gets what', $this->text());
        $fields = [];
        foreach (
            $page
                ->filter('#basket input[name^="to["]')
                ->each(
                    static fn (Crawler $node): array => [(string) $node->attr('name'), (string) $node->attr('value')],
                ) as [$name, $value]
        ) {
            $fields[(int) filter_var($name, \FILTER_SANITIZE_NUMBER_INT)] = $value;
        }
        self::assertNotSame([], $fields);
        $this->post('/compare/basket', ['list' => '', 'to' => $fields]);
        self::assertResponseRedirects('/reorder');
        foreach (array_slice($fields, 0, 10, true) as $id => $supplier) {
            self::assertSame(
                $supplier,
                $this->string(
                    'SELECT s.code FROM proposal p JOIN offer o ON o.id = p.offer_id
                        JOIN supplier s ON s.id = o.supplier_id WHERE p.id = ?',
                    [$id],
                ),
            );
        }
        // Once applied, what is chosen is the award.
        $this->see('/compare/basket');
        self::assertStringContainsString('What is chosen now costs no more', $this->text());
    }

    public function testALineSplitInTheBasketIsOrderedFromBoth(): void
    {
        $this->as('rowan');
        $page = $this->see('/compare/basket');
        // The first line that somebody else sells too.
        $select = $page->filter('select[name^="pin["]')->reduce(
            static fn (Crawler $node): bool => $node->filter('option')->count() > 2,
        );
        $line = (int) filter_var((string) $select->attr('name'), \FILTER_SANITIZE_NUMBER_INT);
        /** @var list<string> $codes */
        $codes = $select->filter('option')->extract(['value']);
        [, $first, $second] = $codes;
        $rule = fn (string $code): string => $this->string(
            'SELECT o.pack_content * GREATEST(o.minimum, o.multiple, 1) FROM offer o
             JOIN supplier s ON s.id = o.supplier_id JOIN proposal p ON p.item_id = o.item_id
             WHERE p.id = ? AND s.code = ? ORDER BY o.id LIMIT 1',
            [$line, $code],
        );
        [$here, $there] = [(float) $rule($first), (float) $rule($second)];
        $this->post('/compare/basket', [
            'list' => '',
            'to' => [$line => $first],
            'second' => [$line => $second],
            'firstUnits' => [$line => (string) (2 * $here)],
            'secondUnits' => [$line => (string) $there],
        ]);
        self::assertResponseRedirects('/reorder');
        $saved = $this->connection()->fetchAssociative(
            'SELECT s.code, p.packs * o.pack_content units, t.code second, p.split_packs * q.pack_content part
             FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN supplier s ON s.id = o.supplier_id
             JOIN offer q ON q.id = p.split_offer_id JOIN supplier t ON t.id = q.supplier_id WHERE p.id = ?',
            [$line],
        );
        self::assertEquals(
            ['code' => $first, 'units' => 2 * $here, 'second' => $second, 'part' => $there],
            $saved,
        );
        $this->post('/compare/basket', [
            'list' => '',
            'to' => [$line => $first],
            'second' => [$line => $second],
            'firstUnits' => [$line => 'a few'],
            'secondUnits' => [$line => '1'],
        ]);
        $this->browser->followRedirect();
        self::assertStringContainsString('are no numbers', $this->text());
    }

    public function testARoundFromQuestionToSplitAward(): void
    {
        $this->as('mara');
        $this->post('/compare/rounds', ['item' => 'JAR-370H', 'units' => '960']);
        $round = $this->round();
        self::assertTrue($round->isDraft());
        $suppliers = [];
        foreach ($round->quotes() as $quote) {
            $suppliers[$quote->supplier->id] = '1';
        }
        $this->post('/compare/rounds/'.$round->number, [
            'version' => (string) $round->version(),
            'reply_by' => '2026-11-27',
            'wanted_on' => '2026-12-18',
            'site' => (string) $round->site()->id,
            'supplier' => $suppliers,
            'add' => 'Gift ribbon, 25 mm, honey',
            'add_quantities' => '40 100',
            'requirements' => 'On pallets, please.',
            'send' => '1',
        ]);
        self::assertResponseRedirects();
        $round = $this->round();
        self::assertTrue($round->isOpen());
        [$first, $second] = $round->quotes();
        [$jar] = $round->items();
        $prices = static fn (string $price): array => [
            'price-'.$jar->id.'-0' => $price,
            'lead_days' => '9',
            'valid_until' => '2027-01-31',
            'charges' => '20',
        ];
        foreach ([[$first, '0.70'], [$second, '0.74']] as [$quote, $price]) {
            $this->browser->request('POST', '/quote/'.$quote->token(), $prices($price));
            self::assertResponseRedirects();
        }
        // A changed answer keeps the earlier one.
        $this->browser->request('POST', '/quote/'.$first->token(), $prices('0.69'));
        self::assertSame(2.0, $this->number('SELECT COUNT(*) FROM quote_answer WHERE quote_id = ?', [$first->id]));
        $this->see('/compare/rounds/'.$round->number);
        self::assertResponseIsSuccessful();
        $round = $this->round();
        $give = ['give-'.$jar->id.'-'.$first->id => '600', 'give-'.$jar->id.'-'.$second->id => '300'];
        $this->post('/compare/rounds/'.$round->number.'/award', ['version' => (string) $round->version()] + $give);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('900 given, 960 asked for.', $this->text());
        $this->post(
            '/compare/rounds/'.$round->number.'/award',
            ['version' => (string) $round->version(), 'anyway' => '1'] + $give,
        );
        self::assertResponseRedirects('/orders/drafts');
        self::assertSame(
            600.0,
            $this->number(
                "SELECT l.packs FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                    WHERE o.supplier_id = ? AND o.state = 'draft' AND l.price = 0.69 ORDER BY l.id DESC LIMIT 1",
                [$first->supplier->id],
            ),
        );
        // Afterwards neither an answer nor a second award counts.
        $this->browser->request('POST', '/quote/'.$second->token(), $prices('0.10'));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('comes too late to count', $this->text());
        $this->post(
            '/compare/rounds/'.$round->number.'/award',
            ['version' => (string) $round->version(), 'anyway' => '1'] + $give,
        );
        self::assertResponseStatusCodeSame(422);
    }

    public function testASuppliersPageNeedsNoSignInAndShowsThatQuoteOnly(): void
    {
        $token = $this->string(
            "SELECT token FROM quote q JOIN quote_round r ON r.id = q.round_id JOIN supplier s ON s.id = q.supplier_id
                WHERE r.number = 'Q-1002' AND s.code = 'OSTREL'",
        );
        $page = $this->see('/quote/'.$token);
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('Hex jar 370 ml', $this->text());
        self::assertStringNotContainsString('Tindavik', $page->html());
        self::assertSame('noindex', $this->browser->getResponse()->headers->get('X-Robots-Tag'));
        $this->see('/quote/'.strrev($token));
        self::assertResponseStatusCodeSame(404);
        $this->browser->request('POST', '/quote/'.$token, ['lead_days' => 'soon']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“soon” is not a number of days', $this->text());
        $this->see('/compare');
        self::assertResponseRedirects();
    }

    public function testTheFilledInFileIsReadAndItsMistakesNamed(): void
    {
        $this->as('mara');
        $token = $this->string(
            "SELECT token FROM quote q JOIN quote_round r ON r.id = q.round_id JOIN supplier s ON s.id = q.supplier_id
                WHERE r.number = 'Q-1002' AND s.code = 'OSTREL'",
        );
        $this->see('/quote/'.$token.'/sheet.csv');
        $blank = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('1,JAR-370H,"Hex jar 370 ml",pcs,576,', $blank);
        $bring = function (string $csv) use ($token): void {
            $file = (string) tempnam(sys_get_temp_dir(), 'quote');
            file_put_contents($file, $csv);
            $this->browser->request(
                'POST',
                '/quote/'.$token,
                [],
                [
                    'file' => new \Symfony\Component\HttpFoundation\File\UploadedFile(
                        $file,
                        'answer.csv',
                        'text/csv',
                        null,
                        true,
                    ),
                ],
            );
        };
        $bring(str_replace('pcs,576,,', 'pcs,576,cheap,', $blank));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Row 2, price “cheap”: “cheap” is not a number', $this->text());
        $bring(str_replace('pcs,576,,,,,,,', 'pcs,576,0.777,,,,,12,', $blank));
        self::assertResponseRedirects();
        self::assertSame(
            12.0,
            $this->number(
                'SELECT a.lead_days FROM quote_answer a JOIN quote q ON q.id = a.quote_id WHERE q.token = ?',
                [$token],
            ),
        );
    }

    public function testMadeUpSuppliersAnswerThroughTheirOwnPage(): void
    {
        $this->as('mara');
        $this->post('/compare/rounds', ['item' => 'FND-WS', 'units' => '500']);
        $round = $this->round();
        $all = array_fill_keys(
            array_map(
                static fn ($row): int => (int) $row,
                array_map(
                    static fn (mixed $id): string => is_scalar($id) ? (string) $id : '0',
                    $this->connection()->fetchFirstColumn(
                        "SELECT s.id FROM supplier s JOIN supplier_contact c ON c.supplier_id = s.id
                            WHERE c.email <> '' GROUP BY s.id",
                    ),
                ),
            ),
            '1',
        );
        $this->post('/compare/rounds/'.$round->number, [
            'version' => (string) $round->version(),
            'supplier' => $all,
            'send' => '1',
        ]);
        $correspondents = self::getContainer()->get(Correspondents::class);
        self::assertInstanceOf(Correspondents::class, $correspondents);
        self::assertGreaterThanOrEqual(count($all), $correspondents->answerDue(true));
        $states = $this->connection()->fetchFirstColumn(
            'SELECT DISTINCT state FROM quote WHERE round_id = ? ORDER BY state',
            [$round->id],
        );
        self::assertSame(['answered', 'declined'], $states);
        self::assertGreaterThan(
            0.0,
            $this->number(
                "SELECT COUNT(*) FROM quote_answer a JOIN quote q ON q.id = a.quote_id
                    WHERE q.round_id = ? AND a.via = 'file'",
                [$round->id],
            ),
        );
    }

    public function testAnOrderDrawsOnItsAgreementAndOverDrawingAsks(): void
    {
        $this->as('rowan');
        $this->connection()->executeStatement(
            "UPDATE agreement SET promised = 20000, tolerance_percent = 0, minimum_call_off = NULL
                WHERE number = 'A-1001'",
        );
        $this->post('/compare/items/JAR-340R/buy', [
            'offer' => $this->string(
                "SELECT o.id FROM offer o JOIN item i ON i.id = o.item_id JOIN supplier s ON s.id = o.supplier_id
                    WHERE i.code = 'JAR-340R' AND s.code = 'VETRASOL'",
            ),
            'units' => '240',
            'second' => $this->string(
                "SELECT o.id FROM offer o JOIN item i ON i.id = o.item_id JOIN supplier s ON s.id = o.supplier_id
                    WHERE i.code = 'JAR-340R' AND s.code = 'TINDAVIK'",
            ),
            'second_units' => '240',
        ]);
        $number = basename((string) $this->browser->getResponse()->headers->get('Location'));
        $this->see('/orders/'.$number);
        self::assertStringContainsString('draws on A-1001', $this->text());
        // 0.62 a jar, 12 in a case.
        self::assertSame(
            7.44,
            $this->number(
                'SELECT l.price FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                    JOIN agreement a ON a.id = l.agreement_id WHERE o.number = ?',
                [$number],
            ),
        );
        $agreements = self::getContainer()->get(Agreements::class);
        self::assertInstanceOf(Agreements::class, $agreements);
        $agreement = $agreements->byNumber('A-1001');
        self::assertNotNull($agreement);
        $drawn = $agreements->drawn($agreement)[$agreement->id];
        self::assertSame(240.0, $drawn['drafted']);
        $this->connection()->executeStatement("UPDATE agreement SET promised = ? WHERE number = 'A-1001'", [
            $drawn['drawn'] + 100,
        ]);
        $this->entities()->clear();
        $version = $this->number('SELECT version FROM purchase_order WHERE number = ?', [$number]);
        $this->post('/orders/'.$number, ['version' => (string) (int) $version, 'do' => 'send']);
        $this->browser->followRedirect();
        self::assertStringContainsString('A-1001 leaves 100 pcs', $this->text());
        self::assertSame('draft', $this->string('SELECT state FROM purchase_order WHERE number = ?', [$number]));
    }

    public function testAnAgreementIsMadeAndNonsenseRefused(): void
    {
        $this->as('mara');
        $supplier = (string) (int) $this->number("SELECT id FROM supplier WHERE code = 'LUMEN'");
        $this->post('/agreements', [
            'supplier' => $supplier,
            'about' => 'JAR-370H',
            'measure' => 'quantity',
            'promised' => '5000',
            'price' => '0.80',
            'first_day' => '2026-12-31',
            'last_day' => '2026-12-01',
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('It would end on 1 Dec 2026, before it begins on 31 Dec 2026.', $this->text());
        $this->post('/agreements', [
            'supplier' => $supplier,
            'about' => 'JAR-370H',
            'measure' => 'quantity',
            'promised' => '5000',
            'price' => '0.80',
            'first_day' => '2026-11-01',
            'last_day' => '2027-10-31',
            'tolerance' => '5',
        ]);
        self::assertResponseRedirects();
        $this->browser->followRedirect();
        self::assertStringContainsString('it needs', $this->text());
    }

    public function testRatesComeFromTheStandInFeedAndAReferenceFile(): void
    {
        $this->as('rowan');
        $typed = ['money' => '9', 'exchange' => '1', 'handlingPercent' => '2', 'handlingAmount' => '3.50',
            'valuing' => 'average'];
        $this->post('/settings/costs', ['handlingPercent' => '61'] + $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('expected 0 to 60', $this->text());
        $this->post('/settings/costs', $typed);
        self::assertResponseRedirects();
        self::assertSame(9.0, $this->number('SELECT money_percent FROM business'));
        self::assertSame(5.5, $this->number('SELECT handling_percent + handling_amount FROM business'));
        self::assertSame(0.0, $this->number('SELECT expects_charges FROM business'), 'not ticked');
        $this->connection()->executeStatement("DELETE FROM exchange_rate WHERE day = '2026-11-23'");
        $this->post('/settings/costs/rates');
        self::assertSame(
            3.0,
            $this->number("SELECT COUNT(*) FROM exchange_rate WHERE day = '2026-11-23' AND source = 'stand-in feed'"),
        );
    }

    /** @return list<float> landed cost of one, by card */
    private static function landed(Crawler $page): array
    {
        /** @var list<float> $costs */
        $costs = $page
            ->filter('article .landed')
            ->each(static fn (Crawler $node): float => (float) ltrim($node->text(), '€'));

        return $costs;
    }

    /** @return array{int, int} a proposal on the board, and an offer that is not its own */
    private function proposalWithAnotherOffer(): array
    {
        $row = $this->connection()->fetchNumeric(
            'SELECT p.id, o.id FROM proposal p JOIN offer o ON o.item_id = p.item_id AND o.id <> p.offer_id
                WHERE p.listed = 1 AND p.draft_id IS NULL ORDER BY p.id LIMIT 1',
        );
        self::assertIsArray($row);
        [$id, $offer] = $row;

        return [is_int($id) ? $id : 0, is_int($offer) ? $offer : 0];
    }

    private function round(): QuoteRound
    {
        $this->entities()->clear();
        $round = $this->entities()
            ->getRepository(QuoteRound::class)
            ->findOneBy([], ['id' => 'DESC']);
        self::assertNotNull($round);

        return $round;
    }

    /** @param list<mixed> $values */
    private function string(string $query, array $values = []): string
    {
        $value = $this->connection()->fetchOne($query, $values);

        return is_scalar($value) ? (string) $value : self::fail('Nothing: '.$query);
    }
}
