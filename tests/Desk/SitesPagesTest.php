<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** Sites, their bins, places goods may be sent to, and agreements, as they are kept on their pages. */
final class SitesPagesTest extends DeskTestCase
{
    public function testABinIsSaidToBeForWhatWaitsOrIsTakenOut(): void
    {
        $this->as('rowan');
        $this->connection()->executeStatement(
            "INSERT INTO bin (site_id, code, kind) SELECT id, 'T-99', 'shelf' FROM site WHERE code = 'MILL'",
        );
        $bin = (string) $this->connection()->lastInsertId();
        $this->post('/settings/sites/MILL/bin', ['bin' => $bin, 'kind' => 'inspection']);
        self::assertResponseRedirects('/settings/sites/MILL');
        self::assertSame('inspection', $this->value('SELECT kind FROM bin WHERE id = ?', $bin));
        $this->post('/settings/sites/MILL/bin', ['bin' => $bin, 'kind' => 'attic']);
        self::assertSame('shelf', $this->value('SELECT kind FROM bin WHERE id = ?', $bin), 'what is none is a shelf');
        $this->post('/settings/sites/FERRY/bin-out', ['bin' => $bin]);
        self::assertSame('1', $this->value('SELECT COUNT(*) FROM bin WHERE id = ?', $bin), 'it is not of that site');
        $this->post('/settings/sites/MILL/bin-out', ['bin' => $bin]);
        self::assertSame('0', $this->value('SELECT COUNT(*) FROM bin WHERE id = ?', $bin));
    }

    public function testAClosedSiteIsOpenedAgain(): void
    {
        $this->as('rowan');
        $this->connection()->executeStatement(
            "INSERT INTO site (code, name, address, receiving_hours, closed_on)
                VALUES ('SHED', 'Old shed', '', '', '2026-01-31')",
        );
        $this->post('/settings/sites/SHED/open');
        self::assertResponseRedirects('/settings/sites/SHED');
        self::assertSame('', $this->value("SELECT closed_on FROM site WHERE code = 'SHED'"));
        $this->post('/settings/sites/SHED/close');
        $this->browser->followRedirect();
        self::assertStringContainsString('Old shed is closed. What was stays.', $this->text());
        self::assertSame('2026-11-23', $this->value("SELECT closed_on FROM site WHERE code = 'SHED'"));
        $this->post('/settings/sites/MILL/close');
        $this->browser->followRedirect();
        self::assertStringContainsString('cannot be closed yet', $this->text());
    }

    public function testPlacesAreAddedOfferedAndTakenAway(): void
    {
        $this->as('mara');
        $this->post('/settings/sites/places', ['place' => 'Honey fair', 'where' => 'Market Square, Town']);
        self::assertResponseRedirects('/settings/sites');
        $this->see('/settings/sites/places');
        self::assertStringContainsString('Honey fair', (string) $this->browser->getResponse()->getContent());
        self::assertStringContainsString('Market Square, Town', (string) $this->browser->getResponse()->getContent());
        $this->post('/settings/sites/places', ['place' => 'Honey fair', 'where' => 'Elsewhere']);
        self::assertStringContainsString('There is a place “Honey fair” already.', $this->text());
        self::assertStringContainsString('Elsewhere', (string) $this->browser->getResponse()->getContent());
        $id = $this->value("SELECT id FROM delivery_place WHERE name = 'Honey fair'");
        $this->post('/settings/sites/places/'.$id);
        self::assertSame('0', $this->value('SELECT COUNT(*) FROM delivery_place WHERE id = ?', $id));
        $this->as('tam');
        $this->post('/settings/sites/places', ['place' => 'Yard', 'where' => 'Lane 1']);
        self::assertResponseStatusCodeSame(403);
    }

    /**
     * @param array<string, string> $changed
     *
     * @return array<string, string> of an agreement, as its form has them
     */
    private static function agreed(array $changed = []): array
    {
        return $changed + [
            'measure' => 'quantity',
            'promised' => '5000',
            'price' => '0.80',
            'first_day' => '2026-11-01',
            'last_day' => '2027-10-31',
            'tolerance' => '5',
            'call_off' => '',
            'renewal' => '',
        ];
    }

    private function agreement(): string
    {
        $this->as('mara');
        $this->post('/agreements', [
            'supplier' => $this->value("SELECT id FROM supplier WHERE code = 'LUMEN'"),
            'about' => 'JAR-370H',
        ] + self::agreed());
        self::assertResponseRedirects();

        return basename((string) $this->browser->getResponse()->headers->get('Location'));
    }

    public function testAnAgreementIsChangedOnceAndNotOverSomebodyElse(): void
    {
        $number = $this->agreement();
        $version = $this->value('SELECT version FROM agreement WHERE number = ?', $number);
        $changed = self::agreed(['promised' => '6000', 'renewal' => 'in May']);
        $this->post('/agreements/'.$number, ['version' => $version] + $changed);
        self::assertResponseRedirects('/agreements/'.$number);
        $this->browser->followRedirect();
        self::assertStringContainsString($number.' is saved.', $this->text());
        self::assertSame(6000.0, $this->number('SELECT promised FROM agreement WHERE number = ?', [$number]));
        $this->post('/agreements/'.$number, ['version' => $version] + self::agreed(['promised' => '7000']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this agreement while you were typing.', $this->text());
        self::assertStringContainsString('7000', (string) $this->browser->getResponse()->getContent());
        self::assertSame(6000.0, $this->number('SELECT promised FROM agreement WHERE number = ?', [$number]));
    }

    public function testAnAgreementWithoutDaysOrPromiseIsRefused(): void
    {
        $number = $this->agreement();
        $version = $this->value('SELECT version FROM agreement WHERE number = ?', $number);
        $this->post('/agreements/'.$number, ['version' => $version] + self::agreed(['last_day' => '']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Say from when to when it holds.', $this->text());
        $this->post('/agreements/'.$number, ['version' => $version] + self::agreed(['promised' => '0']));
        self::assertResponseStatusCodeSame(422);
        $this->post('/agreements/'.$number, ['version' => $version] + self::agreed(['price' => 'cheap']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('cheap', (string) $this->browser->getResponse()->getContent());
    }

    public function testAnAgreementIsEndedEarly(): void
    {
        $number = $this->agreement();
        $this->post('/agreements/'.$number, ['end' => '1']);
        self::assertResponseRedirects();
        self::assertSame('1', $this->value('SELECT ended FROM agreement WHERE number = ?', $number));
        self::assertSame(
            'Ended early',
            $this->value('SELECT words FROM audit_entry WHERE subject = ? ORDER BY id DESC LIMIT 1', $number),
        );
    }

    public function testAnAgreementIsSomebodysAndAboutSomething(): void
    {
        $this->as('mara');
        $this->post('/agreements', ['supplier' => '', 'about' => 'moonlight'] + self::agreed());
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Choose whose agreement it is.', $this->text());
        self::assertStringContainsString('“moonlight” is neither an item code nor a category of items.', $this->text());
    }

    public function testAnItemIsFoundToCompareByCodeAndByName(): void
    {
        $this->as('mara');
        $name = $this->value("SELECT name FROM item WHERE code = 'JAR-370H'");
        foreach (['JAR-370H', 'JAR-370H · '.$name, $name] as $typed) {
            $this->see('/compare/find?item='.urlencode($typed));
            self::assertResponseRedirects('/compare/items/JAR-370H', null, $typed);
        }
        $this->see('/compare/find?item=moonlight');
        self::assertResponseRedirects('/compare');
        $this->browser->followRedirect();
        self::assertStringContainsString(
            'There is no item “moonlight”; type its code or its whole name.',
            $this->text(),
        );
        $this->see('/compare/items/MOONLIGHT');
        self::assertResponseStatusCodeSame(404);
    }

    /** @return list<array<string, string>> */
    private function offers(string $code): array
    {
        /** @var list<array<string, string>> $offers */
        $offers = $this->connection()->fetchAllAssociative(
            "SELECT o.id, s.code supplier FROM offer_in_force f JOIN offer o ON o.id = f.id
                JOIN item i ON i.id = o.item_id JOIN supplier s ON s.id = o.supplier_id
                WHERE i.code = ? AND '2026-11-23' BETWEEN f.from_day AND f.until_day ORDER BY o.rank, o.id",
            [$code],
        );

        return $offers;
    }

    /** The page says of each line what the cheapest would save; in all it is the sum of what it says. */
    public function testWhatSwitchingWouldSaveIsTheSumOfItsLines(): void
    {
        $this->as('mara');
        $page = $this->see('/compare');
        self::assertResponseIsSuccessful();
        $saved = [];
        foreach ($page->filter('table tr') as $row) {
            $cells = $row instanceof \DOMElement ? $row->getElementsByTagName('td') : null;
            $last = $cells?->item(($cells->length ?: 1) - 1)?->textContent;
            if (1 === preg_match('/^\s*€([\d,]+\.\d\d)\s*$/', (string) $last, $found)) {
                $saved[] = (float) str_replace(',', '', $found[1]);
            }
        }
        self::assertNotSame([], $saved);
        $sorted = $saved;
        rsort($sorted);
        self::assertSame($sorted, $saved, 'what saves most stands first');
        self::assertSame(1, preg_match('/would save up to €([\d,]+\.\d\d)/', $this->text(), $found));
        self::assertEqualsWithDelta(
            array_sum($saved),
            (float) str_replace(',', '', $found[1]),
            0.005 * (count($saved) + 1),
        );
    }

    /** Lists that say "all" send their name and nothing. */
    public function testAChoiceOfAllIsNoWrongNumber(): void
    {
        $this->as('mara');
        foreach (
            [
                '/compare/items/JAR-370H?units=48&for=',
                '/compare/basket?list=',
                '/settle/landed?by=item&days=',
                '/stock?from=',
                '/reorder?why=',
                '/orders?page=',
                '/stock/shelf?site=',
            ] as $address
        ) {
            $this->see($address);
            self::assertNotSame(400, $this->browser->getResponse()->getStatusCode(), $address);
        }
        $this->see('/compare/items/JAR-370H?units=48&for=some');
        self::assertResponseStatusCodeSame(400);
    }

    public function testBuyingFromSomebodyWhoDoesNotOfferItIsRefused(): void
    {
        $this->as('mara');
        $this->post('/compare/items/JAR-370H/buy', ['offer' => '999999', 'units' => '48']);
        self::assertResponseRedirects('/compare/items/JAR-370H?units=48&for=');
        $this->browser->followRedirect();
        self::assertStringContainsString('That supplier does not offer it any more; look once more.', $this->text());
        $this->post('/compare/items/JAR-370H/buy', ['offer' => $this->offers('JAR-370H')[0]['id'], 'units' => 'some']);
        $this->browser->followRedirect();
        self::assertStringContainsString('some', $this->text());
        $this->post('/compare/items/MOONLIGHT/buy', ['units' => '48']);
        self::assertResponseStatusCodeSame(404);
    }

    public function testASiteIsDescribedAnewOnItsPage(): void
    {
        $this->as('rowan');
        $form = $this->see('/settings/sites/MILL')->filter('#site')->form();
        /** @var array<string, mixed> $fields */
        $fields = array_diff_key($form->getPhpValues(), ['_token' => 1]);
        $this->post('/settings/sites/MILL', ['name' => 'Millbank, upper barn'] + $fields);
        self::assertResponseRedirects('/settings/sites/MILL');
        self::assertSame('Millbank, upper barn', $this->value("SELECT name FROM site WHERE code = 'MILL'"));
        $this->post('/settings/sites/MILL', ['name' => ' '] + $fields);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('A site needs a name.', $this->text());
        $this->see('/settings/sites/NOWHERE');
        self::assertResponseStatusCodeSame(404);
    }
}
