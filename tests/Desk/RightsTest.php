<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Tests\Face\Pages;

/** What the owner lets each role see and do. */
final class RightsTest extends DeskTestCase
{
    private const BUYER = [
        'ROLE_BUY' => '1', 'ROLE_RECEIVE' => '1', 'ROLE_IMPORT' => '1', 'ROLE_DECIDE' => '1', 'ROLE_COSTS' => '1',
    ];

    private const BOOKKEEPER = ['ROLE_INVOICE' => '1', 'ROLE_RELEASE' => '1', 'ROLE_COSTS' => '1'];

    /** @param array<string, array<string, string>> $changes */
    private function allow(array $changes): void
    {
        $this->as('rowan');
        $this->post('/settings/rights', $changes + [
            'buyer' => self::BUYER,
            'stockroom' => ['ROLE_RECEIVE' => '1', 'ROLE_COSTS' => '1'],
            'bookkeeper' => self::BOOKKEEPER,
        ]);
        $this->entities()->clear();
    }

    /** Anew, as everybody whose role changed has to. */
    private function signIn(string $name): void
    {
        $this->browser->getCookieJar()->clear();
        $token = $this->see('/sign-in')->filter('input[name="_token"]')->attr('value');
        $this->browser->request('POST', '/sign-in', [
            '_token' => $token, 'email' => $name.'@larkmoor.example', 'password' => 'larkmoor-honey',
        ]);
        self::assertResponseRedirects('/');
    }

    public function testWhoMayNotSeeCostsSeesNoAmountAnywhere(): void
    {
        $this->as('tam');
        self::assertStringContainsString('€', $this->see('/items/JAR-340R')->filter('main')->text());
        $this->allow(['stockroom' => ['ROLE_RECEIVE' => '1']]);
        $this->signIn('tam');
        $seen = 0;
        foreach (array_merge(['/find?q=jar', '/stock.csv'], ...array_values(Pages::ALL)) as $page) {
            if (str_contains($page, '{')) {
                continue;
            }
            $this->see($page);
            $text = (string) $this->browser->getResponse()->getContent();
            self::assertDoesNotMatchRegularExpression('/(€|£|zł|US\$)\s?\d|\d\s?(€|zł|EUR\b)/u', $text, $page);
            $seen += $this->browser->getResponse()->isSuccessful() ? 1 : 0;
        }
        self::assertGreaterThan(20, $seen, 'most pages are there for them all the same');
        foreach (['/reorder', '/compare', '/settle', '/suppliers', '/suppliers/VETRASOL', '/orders.csv',
            '/orders/PO-1079/costing.pdf',
            '/agreements'] as $page) {
            $this->see($page);
            self::assertResponseStatusCodeSame(403, $page);
            self::assertStringContainsString('about costs', $this->text());
        }
        $this->signIn('rowan');
        self::assertStringContainsString('€', $this->see('/items/JAR-340R')->filter('main')->text(), 'others see them');
    }

    public function testARoleMayDoMoreOrLess(): void
    {
        $this->allow(['buyer' => ['ROLE_BUY' => '1', 'ROLE_COSTS' => '1'],
            'bookkeeper' => self::BOOKKEEPER + ['ROLE_IMPORT' => '1']]);
        $this->signIn('mara');
        $this->see('/own-data');
        self::assertResponseStatusCodeSame(403);
        $this->post('/dock/start');
        self::assertNotSame(200, $this->browser->getResponse()->getStatusCode());
        $this->signIn('iris');
        $this->see('/own-data');
        self::assertResponseIsSuccessful();
    }

    public function testNobodyDecidesAboutMoneyUnseenAndNobodyButTheOwnerSetsThis(): void
    {
        $this->allow(['buyer' => ['ROLE_BUY' => '1']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('has to see what things cost', $this->text());
        $this->allow(['buyer' => self::BUYER + ['ROLE_APPROVE' => '1']]);
        $this->as('mara');
        $this->post('/settings/rights', ['buyer' => self::BUYER]);
        self::assertResponseStatusCodeSame(403, 'the last right is the owner’s alone');
    }

    public function testAYesIsAskedOfWhoeverIsNamed(): void
    {
        $this->connection()->executeStatement(
            "UPDATE person SET approver_id = (SELECT id FROM (SELECT * FROM person) p WHERE p.email LIKE 'rowan@%')
             WHERE email LIKE 'mara@%'",
        );
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET buyer_id = (SELECT id FROM person WHERE email LIKE 'mara@%') WHERE number =
                'PO-1081'",
        );
        $this->entities()->clear();
        $this->as('mara');
        self::assertStringContainsString('Waits for Rowan’s yes', $this->see('/orders/PO-1081')->text());
        self::assertStringContainsString('over their limit; waits for Rowan', $this->see('/')->text());
    }
}
