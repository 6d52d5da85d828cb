<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Visits;

/** What is done once a year: a supplier given up, an account of ours, a visit ended, a file for the accountant. */
final class RareActsTest extends DeskTestCase
{
    public function testASupplierIsGivenUpWhenNothingIsOpenAndTakenUpAgain(): void
    {
        $this->as('mara');
        $open = $this->value(
            "SELECT s.code FROM supplier s JOIN purchase_order o ON o.supplier_id = s.id
                WHERE o.state = 'sent' LIMIT 1",
        );
        $this->post('/suppliers/'.$open.'/archive');
        $this->browser->followRedirect();
        self::assertStringContainsString('finish that first.', $this->text());
        self::assertSame('', $this->value('SELECT archived_on FROM supplier WHERE code = ?', $open));
        $idle = $this->value(
            "SELECT code FROM supplier s WHERE s.archived_on IS NULL
                AND NOT EXISTS (SELECT 1 FROM purchase_order o WHERE o.supplier_id = s.id
                    AND o.state NOT IN ('received', 'closed', 'cancelled'))
                AND NOT EXISTS (SELECT 1 FROM quote q JOIN quote_round r ON r.id = q.round_id
                    WHERE q.supplier_id = s.id AND r.settled_at IS NULL) LIMIT 1",
        );
        self::assertNotSame('', $idle);
        $this->post('/suppliers/'.$idle.'/archive');
        $this->browser->followRedirect();
        self::assertStringContainsString('is archived: nothing is bought there any more.', $this->text());
        self::assertSame('2026-11-23', $this->value('SELECT archived_on FROM supplier WHERE code = ?', $idle));
        $this->post('/suppliers/'.$idle.'/take-up');
        self::assertSame('', $this->value('SELECT archived_on FROM supplier WHERE code = ?', $idle));
        $this->post('/suppliers/NOBODY/archive');
        self::assertResponseStatusCodeSame(404);
    }

    /** The IBAN is the example of ISO 13616-1. */
    public function testTheAccountWePayFromIsKeptOrSaidToBeWrong(): void
    {
        $this->as('rowan');
        $this->post('/settle/accounts/ours', ['our_iban' => 'GB82 WEST 1234 5698 7654 33', 'our_bic' => '']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString(
            'GB82 WEST 1234 5698 7654 33',
            (string) $this->browser->getResponse()->getContent(),
        );
        $this->post('/settle/accounts/ours', ['our_iban' => 'gb82 west 1234 5698 7654 32', 'our_bic' => 'WESTGB2L']);
        self::assertResponseRedirects('/settle/accounts');
        self::assertSame(
            'Pays from GB82 WEST 1234 5698 7654 32',
            $this->value("SELECT words FROM audit_entry WHERE subject = 'business' ORDER BY id DESC LIMIT 1"),
        );
        $this->post('/settle/accounts/ours', ['our_iban' => '', 'our_bic' => '']);
        self::assertSame(
            'Pays from no account',
            $this->value("SELECT words FROM audit_entry WHERE subject = 'business' ORDER BY id DESC LIMIT 1"),
        );
        $this->as('tam');
        $this->post('/settle/accounts/ours', ['our_iban' => '']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testOtherVisitsAreEndedFromOnesOwnPage(): void
    {
        $this->as('mara');
        $mara = $this->entities()
            ->getRepository(Person::class)
            ->findOneBy(['email' => 'mara@larkmoor.example']);
        $visits = self::getContainer()->get(Visits::class);
        self::assertNotNull($mara);
        self::assertInstanceOf(Visits::class, $visits);
        $visits->begin($mara, 'A telephone', '192.0.2.7');
        $lost = $visits->begin($mara, 'A lost laptop', '192.0.2.8')->id;
        $this->see('/settings/access');
        self::assertStringContainsString('192.0.2.8', $this->text());
        $this->post('/settings/access/visits', ['visit' => (string) $lost]);
        $this->browser->followRedirect();
        self::assertStringContainsString('That one is signed out.', $this->text());
        self::assertStringNotContainsString('192.0.2.8', $this->text());
        self::assertStringContainsString('192.0.2.7', $this->text());
        $this->post('/settings/access/visits', ['visit' => '']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Everywhere else you are signed out.', $this->text());
        self::assertStringNotContainsString('192.0.2.7', $this->text());
    }

    public function testNobodyEndsTheVisitOfSomebodyElse(): void
    {
        $rowan = $this->entities()
            ->getRepository(Person::class)
            ->findOneBy(['email' => 'rowan@larkmoor.example']);
        $visits = self::getContainer()->get(Visits::class);
        self::assertNotNull($rowan);
        self::assertInstanceOf(Visits::class, $visits);
        $theirs = $visits->begin($rowan, 'Another desk', '192.0.2.9')->id;
        $this->as('mara');
        $this->post('/settings/access/visits', ['visit' => (string) $theirs]);
        $this->post('/settings/access/visits', ['visit' => '']);
        $this->as('rowan');
        $this->see('/settings/access');
        self::assertStringContainsString('192.0.2.9', $this->text());
    }

    public function testWhatGoesInAndOutIsAFileByDay(): void
    {
        $this->as('iris');
        $this->see('/settle/cash.csv');
        self::assertResponseIsSuccessful();
        $lines = array_map(
            static fn (string $line): array => str_getcsv($line, ',', '"', ''),
            explode("\n", trim(ltrim((string) $this->browser->getResponse()->getContent(), "\u{feff}"))),
        );
        self::assertSame(['day', 'kind', 'number', 'supplier', 'amount', 'currency'], array_shift($lines));
        self::assertNotSame([], $lines);
        $days = array_column($lines, 0);
        $sorted = $days;
        sort($sorted);
        self::assertSame($sorted, $days);
        $this->see('/settle/cash.xlsx');
        self::assertStringStartsWith('PK', (string) $this->browser->getResponse()->getContent());
    }

    public function testACreditNoteIsBegunForASupplierThatIsChosen(): void
    {
        $this->as('iris');
        $this->see('/settle/credits/new?supplier=VETRASOL');
        self::assertResponseRedirects('/settle/credits/new/VETRASOL');
        $this->browser->followRedirect();
        self::assertResponseIsSuccessful();
        $this->see('/settle/credits/new?supplier=');
        $this->browser->followRedirect();
        self::assertResponseStatusCodeSame(404);
    }

    public function testAnInvoiceIsGivenUpOrOpenedAgainByWhoMayAndAsItWasSeen(): void
    {
        $this->as('rowan');
        $entered = $this->value("SELECT id FROM invoice WHERE state = 'entered' ORDER BY id DESC LIMIT 1");
        $this->post('/settle/'.$entered.'/discard', ['version' => '9999']);
        self::assertResponseRedirects('/settle/'.$entered);
        self::assertSame('entered', $this->value('SELECT state FROM invoice WHERE id = ?', $entered));
        $version = $this->value('SELECT version FROM invoice WHERE id = ?', $entered);
        $this->post('/settle/'.$entered.'/discard', ['version' => $version]);
        self::assertResponseRedirects('/settle');
        $this->browser->followRedirect();
        self::assertStringContainsString('Given up; what came stands under', $this->text());
        self::assertNotSame('entered', $this->value('SELECT state FROM invoice WHERE id = ?', $entered));
        $settled = $this->value("SELECT id FROM invoice WHERE state = 'settled' ORDER BY id DESC LIMIT 1");
        $version = $this->value('SELECT version FROM invoice WHERE id = ?', $settled);
        $this->as('mara');
        $this->post('/settle/'.$settled.'/reopen', ['version' => $version]);
        self::assertResponseStatusCodeSame(403);
        $this->as('rowan');
        $this->post('/settle/'.$settled.'/reopen', ['version' => $version]);
        $this->browser->followRedirect();
        self::assertStringContainsString('It is open again.', $this->text());
        self::assertSame('entered', $this->value('SELECT state FROM invoice WHERE id = ?', $settled));
    }

    public function testItemsAreNamedWhileOneTypes(): void
    {
        $this->as('mara');
        $this->see('/items/names?item=JAR-340R');
        self::assertResponseIsSuccessful();
        $first = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('JAR-340R', $first);
        $this->see('/items/names?item=J');
        self::assertStringNotContainsString('JAR-340R', (string) $this->browser->getResponse()->getContent());
        $this->see('/items/names?add='.rawurlencode('%'));
        self::assertResponseIsSuccessful();
        $this->see('/items/names');
        self::assertResponseIsSuccessful();
    }

    public function testAFieldOfOurOwnIsGivenUpAndTakenUpAgain(): void
    {
        $this->as('rowan');
        $this->post('/settings/fields', ['thing' => 'delivery', 'label' => 'Seal number', 'kind' => 'text']);
        self::assertResponseRedirects('/settings/fields');
        $id = $this->value("SELECT id FROM own_field WHERE label = 'Seal number'");
        $this->post('/settings/fields/'.$id, ['over' => '1']);
        self::assertSame('1', $this->value('SELECT given_up FROM own_field WHERE id = ?', $id));
        $this->post('/settings/fields/'.$id);
        self::assertSame('0', $this->value('SELECT given_up FROM own_field WHERE id = ?', $id));
        $this->post('/settings/fields', ['thing' => 'delivery', 'label' => 'seal number', 'kind' => 'text']);
        self::assertStringContainsString('There is a field “Seal number” there already.', $this->text());
        $this->post('/settings/fields/999999', ['over' => '1']);
        self::assertResponseStatusCodeSame(404);
    }

    public function testThereIsALogoOrNone(): void
    {
        $this->as('rowan');
        $this->connection()->executeStatement('UPDATE business SET logo_id = NULL');
        $this->entities()->clear();
        $this->see('/settings/business/logo');
        self::assertResponseStatusCodeSame(404);
    }

    public function testStandInSuppliersAreToldToAnswer(): void
    {
        $this->as('mara');
        $this->post('/mailbox/answers');
        self::assertResponseRedirects('/compare/rounds');
        $this->as('tam');
        $this->post('/mailbox/answers');
        self::assertResponseStatusCodeSame(403);
    }
}
