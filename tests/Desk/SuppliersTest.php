<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

final class SuppliersTest extends DeskTestCase
{
    /** @return array<string, mixed> */
    private function form(string $code): array
    {
        /** @var array<string, mixed> $values */
        $values = $this->see('/suppliers/'.$code)
            ->filter('#supplier')
            ->form()
            ->getPhpValues();

        return array_diff_key($values, ['_token' => 1]);
    }

    public function testWhatIsMissingIsFilledInAndTheSupplierIsReady(): void
    {
        $this->as('mara');
        self::assertStringContainsString(
            'before ordering: contact, email',
            $this->see('/suppliers/QUILLBAR')->filter('.title')->text(),
        );
        $this->post(
            '/suppliers/QUILLBAR',
            ['contact' => 'Noor Vale', 'email' => 'orders@quillbar.example'] + $this->form('QUILLBAR'),
        );
        self::assertResponseRedirects('/suppliers/QUILLBAR');
        $this->browser->followRedirect();
        self::assertStringContainsString('Quillbar Print is saved', $this->text());
        self::assertStringContainsString('ready to order', $this->browser->getCrawler()->filter('.title')->text());
    }

    public function testOrderDaysTermsAndThresholdsAreKept(): void
    {
        $this->as('mara');
        $this->post(
            '/suppliers/MURREL',
            [
                'weekdays' => ['2', '5'],
                'cut_off' => '09:15',
                'net_days' => '45',
                'discount_percent' => '1,5',
                'discount_days' => '14',
                'minimum' => '1,250',
                'free_freight' => '',
                'caution' => 'Ring first.',
            ] + $this->form('MURREL'),
        );
        $form = $this->form('MURREL');
        self::assertSame(
            ['09:15', '45', '1.5', '14', '1250', '', 'Ring first.'],
            [
                $form['cut_off'],
                $form['net_days'],
                $form['discount_percent'],
                $form['discount_days'],
                $form['minimum'],
                $form['free_freight'],
                $form['caution'],
            ],
        );
        self::assertSame(['2', '5'], array_values((array) $form['weekdays']));
    }

    public function testTheSecondOfTwoPeopleIsToldAndLosesNothing(): void
    {
        $this->as('mara');
        $mine = $theirs = $this->form('OSTREL');
        $this->post('/suppliers/OSTREL', ['note' => 'Theirs.'] + $theirs);
        self::assertResponseRedirects();
        $this->as('rowan');
        $this->post('/suppliers/OSTREL', ['note' => 'Mine.'] + $mine);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this supplier while you were typing', $this->text());
        self::assertSame('Mine.', $this->browser->getCrawler()->filter('input[name="note"]')->attr('value'));
        self::assertSame(
            'Theirs.',
            $this->connection()->fetchOne("SELECT standing_note FROM supplier WHERE code = 'OSTREL'"),
        );
    }

    public function testACautionShowsWhenTheSupplierIsUsed(): void
    {
        $this->connection()->executeStatement(
            "UPDATE supplier SET caution = 'They ship on Fridays only.' WHERE code = 'LUMEN'",
        );
        $this->as('mara');
        $this->see('/orders/PO-1082');
        self::assertStringContainsString(
            'They ship on Fridays only.',
            $this->browser->getCrawler()->filter('.note.watch')->text(),
        );
    }

    public function testANameIsNeeded(): void
    {
        $this->as('mara');
        $this->post('/suppliers/OSTREL', ['name' => ' ', 'tax' => 'much', 'minimum' => '-5'] + $this->form('OSTREL'));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('A supplier needs a name', $this->text());
        self::assertStringContainsString('“much” is not a number', $this->text());
        self::assertStringContainsString('“-5” is below zero', $this->text());
    }

    public function testWhoMayOnlyLookFindsTheFieldsClosed(): void
    {
        $this->as('iris');
        self::assertCount(2, $this->see('/suppliers/OSTREL')->filter('fieldset[disabled]'));
        self::assertCount(0, $this->browser->getCrawler()->filter('fieldset:not([disabled])'));
        self::assertCount(0, $this->browser->getCrawler()->filter('[data-next]'));
        foreach (['/reorder' => 'Drafting is for buyers', '/orders/PO-1082' => 'PO-1082'] as $page => $words) {
            self::assertStringContainsString($words, $this->see($page)->text());
            self::assertCount(
                0,
                $this->browser->getCrawler()->filter('main input.qty:not([disabled])'),
                'nothing to type into at '.$page,
            );
        }
    }

    public function testANewSupplierTakesOverTheTermsOfASimilarOne(): void
    {
        $this->as('mara');
        $this->post('/suppliers', ['code' => 'hollin', 'name' => 'Hollin Glass', 'like' => 'TINDAVIK']);
        self::assertResponseRedirects('/suppliers/HOLLIN');
        $this->browser->followRedirect();
        self::assertStringContainsString('before ordering: contact, email, address', $this->text());
        self::assertSame(
            1.0,
            $this->number(
                "SELECT COUNT(*) FROM supplier WHERE code = 'HOLLIN' AND currency = 'PLN' AND net_days = 60
                    AND freight_kind = 'pallet' AND pallet_kg = 450",
            ),
        );
        $this->post('/suppliers', ['code' => 'HOLLIN', 'name' => 'Once more', 'like' => 'TINDAVIK']);
        $this->browser->followRedirect();
        self::assertStringContainsString('There is a supplier HOLLIN already.', $this->text());
    }

    public function testFurtherAddressesAndContactsAreKeptAndTakenAway(): void
    {
        $this->as('mara');
        $this->post(
            '/suppliers/OSTREL',
            [
                'pay_street' => 'Bankplatz 1',
                'pay_postcode' => '29410',
                'pay_city' => 'Ostrel',
                'pay_country' => 'de',
                'accounts_contact' => 'Ina Rohr',
                'accounts_email' => 'rechnung@ostrel.example',
            ] + $this->form('OSTREL'),
        );
        self::assertResponseRedirects();
        $form = $this->form('OSTREL');
        self::assertSame(
            ['Bankplatz 1', 'DE', 'Ina Rohr'],
            [$form['pay_street'], $form['pay_country'], $form['accounts_contact']],
        );
        $this->post(
            '/suppliers/OSTREL',
            [
                'pay_street' => '',
                'pay_postcode' => '',
                'pay_city' => '',
                'accounts_contact' => 'Ina Rohr',
                'accounts_email' => 'ina',
            ] + $form,
        );
        self::assertStringContainsString('“ina” is not an email address', $this->text());
        self::assertSame(
            1.0,
            $this->number(
                "SELECT COUNT(*) FROM supplier_address a JOIN supplier s ON s.id = a.supplier_id
                    WHERE s.code = 'OSTREL' AND a.role = 'pay'",
            ),
            'nothing half done',
        );
        $this->post(
            '/suppliers/OSTREL',
            ['pay_street' => '', 'pay_postcode' => '', 'pay_city' => ''] + $this->form('OSTREL'),
        );
        self::assertSame(
            0.0,
            $this->number(
                "SELECT COUNT(*) FROM supplier_address a JOIN supplier s ON s.id = a.supplier_id
                    WHERE s.code = 'OSTREL' AND a.role = 'pay'",
            ),
        );
    }

    public function testTheSideSaysHowTheyDeliver(): void
    {
        $this->as('iris');
        $side = $this->see('/suppliers/VETRASOL')->filter('aside');
        self::assertGreaterThan(4, $side->filter('svg[aria-label^="Lead times met"] circle')->count());
        self::assertMatchesRegularExpression('/Shortest and longest\s*\d+ to \d+ d/', $side->text());
        self::assertCount(
            1,
            $this->see('/suppliers/VETRASOL?offers=720')->filter(
                '#offers + table tbody tr, #offers + table tr:not(:first-child)',
            ),
            'found among the offers',
        );
    }

    public function testWrongFreightStandsBesideItsFieldAndNothingIsChanged(): void
    {
        $this->as('mara');
        $page = $this->see('/suppliers/BRENMOOR');
        /** @var array<string, mixed> $values */
        $values = $page->filter('#supplier')->form()->getPhpValues();
        $this->post(
            '/suppliers/BRENMOOR',
            ['freight_kind' => 'weight', 'freight_steps' => '0=18 30=9', 'delivery_terms' => 'DDU Brenmoor'] + $values,
        );
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('must start later and cost no less', $this->text());
        self::assertStringContainsString('“DDU” is no rule of Incoterms 2020', $this->text());
        self::assertSame(
            1.0,
            $this->number(
                "SELECT COUNT(*) FROM supplier WHERE code = 'BRENMOOR' AND freight_steps = '0=14 30=26 100=58 300=110'
                    AND delivery_terms = 'FCA Brenmoor'",
            ),
        );
    }
}
