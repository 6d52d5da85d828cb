<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\Approval;

/** Limits by order and month, split orders, and who says yes in somebody's place. */
final class ApprovalTest extends DeskTestCase
{
    private function id(string $name): int
    {
        return (int) $this->number('SELECT id FROM person WHERE email = ?', [$name.'@larkmoor.example']);
    }

    /** @param array<string, array<int, string>> $typed over what stands there */
    private function limits(array $typed): void
    {
        $this->as('rowan');
        /** @var array<string, array<int, string>> $form */
        $form = $this->see('/settings/limits')->filter('#limits')->form()->getPhpValues();
        unset($form['_token']);
        /** @var array<string, mixed> $all */
        $all = array_replace_recursive($form, $typed);
        $this->post('/settings/limits', $all);
    }

    private function send(string $number): string
    {
        /** @var array<string, mixed> $form */
        $form = $this->see('/orders/'.$number)->filter('#order')->form()->getPhpValues();
        unset($form['_token']);
        $this->post('/orders/'.$number, ['email' => 'o@lumen.example', 'do' => 'send'] + $form);
        $this->browser->followRedirect();

        return $this->text();
    }

    private function state(string $number): string
    {
        $state = $this->connection()->fetchOne('SELECT state FROM purchase_order WHERE number = ?', [$number]);

        return is_string($state) ? $state : self::fail('No order '.$number);
    }

    public function testAMonthsLimitHoldsBackWhatTheOrdersLimitWouldLetThrough(): void
    {
        $this->limits(['month' => [$this->id('mara') => '100']]);
        self::assertResponseRedirects('/settings/limits');
        $this->as('mara');
        self::assertStringContainsString('over the limit of 100.00 a month', $this->see('/orders/PO-1082')->text());
        self::assertStringContainsString('PO-1082 is over Mara’s limit', $this->send('PO-1082'));
        self::assertSame('draft', $this->state('PO-1082'));
        $this->limits(['month' => [$this->id('mara') => '100000']]);
        $this->as('mara');
        $this->send('PO-1082');
        self::assertSame('sent', $this->state('PO-1082'));
    }

    public function testTwoOrdersToOneSupplierAreOneForTheLimit(): void
    {
        $this->limits(['order' => [$this->id('mara') => '300']]);
        $this->as('mara');
        $this->send('PO-1082');
        self::assertSame('sent', $this->state('PO-1082'));
        $this->post('/orders/new', ['supplier' => 'LUMEN', 'item' => 'BOT-500S']);
        $second = basename(explode('?', (string) $this->browser->getResponse()->headers->get('Location'))[0]);
        self::assertStringContainsString('let through to the same supplier in the last 7 days', $this->send($second));
        self::assertSame('draft', $this->state($second));
    }

    public function testWhoStandsInSaysYesToOthersOrdersNotToTheirOwn(): void
    {
        // PO-1081 is Mara's, over her limit.
        $mara = $this->id('mara');
        $rowan = $this->id('rowan');
        $this->limits(['stand_in' => [$rowan => (string) $mara], 'until' => [$rowan => '2026-11-30']]);
        $this->as('mara');
        $version = fn (): string => (string) (int) $this->number(
            "SELECT version FROM purchase_order WHERE number = 'PO-1081'",
        );
        $this->post('/orders/PO-1081/approve', ['version' => $version()]);
        self::assertSame('awaiting-approval', $this->state('PO-1081'), 'not their own');
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET buyer_id = ? WHERE number = 'PO-1081'",
            [$rowan],
        );
        $this->entities()->clear();
        $this->post('/orders/PO-1081/approve', ['version' => $version()]);
        self::assertSame('approved', $this->state('PO-1081'));
        $this->limits(['until' => [$rowan => '2026-11-22']]);
        $this->as('mara');
        $this->post('/orders/PO-1081/back', ['version' => $version()]);
        self::assertSame('draft', $this->state('PO-1081'));
        self::assertStringContainsString('Over your limit', $this->see('/orders/PO-1081')->text(), 'the time is over');
    }

    public function testBadLimitsStandBesideTheirFieldAndOnlyOwnersSetThem(): void
    {
        $rowan = $this->id('rowan');
        $mara = $this->id('mara');
        $this->limits(['order' => [$mara => 'lots'], 'month' => [$mara => '-5']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“lots” is not a number', $this->text());
        self::assertStringContainsString('“-5” is below zero', $this->text());
        $this->limits(['order' => [$rowan => '5000']]);
        self::assertStringContainsString('leave one owner without a limit', $this->text());
        $this->limits(['stand_in' => [$mara => (string) $rowan]]);
        self::assertStringContainsString('Until which day do they stand in?', $this->text());
        self::assertSame(2500.0, $this->number('SELECT spending_limit FROM person WHERE id = ?', [$mara]));
        $this->as('mara');
        $this->browser->request('POST', '/settings/limits', ['order' => [$mara => '99999']]);
        self::assertResponseStatusCodeSame(403);
    }

    /** @param array<string, mixed> $typed */
    private function ask(array $typed): void
    {
        $this->as('rowan');
        $this->post('/settings/limits/asked', $typed);
    }

    public function testOfSomeCategoriesANamedPersonIsAskedWhateverTheLimit(): void
    {
        $rowan = (string) $this->id('rowan');
        $category = $this->connection()->fetchOne(
            "SELECT i.category FROM order_line l JOIN purchase_order o ON o.id = l.order_id
             JOIN item i ON i.id = l.item_id WHERE o.number = 'PO-1082' LIMIT 1",
        );
        self::assertIsString($category);
        foreach (
            [
                [['category' => ['Moon dust'], 'above' => ['5'], 'asked' => [$rowan]], 'No item is in a category'],
                [['category' => [$category], 'above' => ['lots'], 'asked' => [$rowan]], '“lots”'],
                [['category' => [$category], 'above' => ['5'], 'asked' => ['']], 'and who is asked'],
                [
                    ['category' => [$category], 'above' => ['5'], 'asked' => [(string) $this->id('mara')]],
                    'approves no orders',
                ],
                [
                    [
                        'category' => [$category, strtoupper($category)], 'above' => ['5', '6'],
                        'asked' => [$rowan, $rowan],
                    ],
                    'stands twice',
                ],
            ] as [$typed, $words]
        ) {
            $this->ask($typed);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($words, $this->text());
        }
        $this->ask(['category' => [$category], 'above' => ['5'], 'asked' => [$rowan], 'rule-day' => 'always']);
        self::assertResponseRedirects('/settings/limits');
        $page = $this->see('/settings/limits');
        self::assertSame($category, $page->filter('[name="category[0]"]')->attr('value'));
        self::assertSame('always', $page->filter('[name="rule-day"] option[selected]')->attr('value'));
        self::assertSame('beyond-limit', $page->filter('[name="rule-price"] option[selected]')->attr('value'));
        $this->as('mara');
        self::assertStringContainsString('above 5.00 Rowan is asked', $this->send('PO-1082'));
        self::assertSame('draft', $this->state('PO-1082'));
        $this->ask(['category' => [''], 'above' => [''], 'asked' => ['']]);
        $this->as('mara');
        $this->send('PO-1082');
        self::assertSame('sent', $this->state('PO-1082'));
        $this->browser->request('POST', '/settings/limits/asked', ['_token' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    /** A buyer types another address on the order, or agrees other terms: somebody else has to have seen it. */
    public function testWhatABuyerChangesOfASupplierIsSeenBySomebodyWhoApproves(): void
    {
        $this->connection()->executeStatement(
            "UPDATE supplier_contact c JOIN supplier s ON s.id = c.supplier_id
             SET c.email = 'orders@lumenfold.example' WHERE s.code = 'LUMEN' AND c.role = 'orders'",
        );
        $this->as('mara');
        $this->changeSupplier(['net_days' => '7', 'paid_through' => '']);
        self::assertStringContainsString('not for Mara alone to let through', $this->send('PO-1082'));
        self::assertSame('draft', $this->state('PO-1082'));
        $this->as('rowan');
        $page = $this->see('/orders/PO-1082')->text();
        foreach (['orders go to “o@lumen.example” now, “orders@lumenfold.example” before',
            'terms of payment “net 7” now, “net 30” before',
            'paid to “Lumen Fold Packaging” now, “Vetrasol Glassworks” before'] as $words) {
            self::assertStringContainsString($words, $page);
        }
        $this->send('PO-1082');
        self::assertSame('sent', $this->state('PO-1082'));
        self::assertStringNotContainsString('“net 30” before', $this->see('/suppliers/LUMEN')->text());
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM supplier_contact WHERE email_before <> ''"));
    }

    /** Put back, or changed by somebody who approves: nobody has to look at it. */
    public function testOnlyWhatDiffersFromWhatWasSeenHasToBeSeen(): void
    {
        $unseen = fn (): bool => str_contains($this->see('/suppliers/LUMEN')->text(), '” before');
        $turns = [['mara', '7', true], ['rowan', '7', true], ['mara', '30', false], ['rowan', '7', false]];
        foreach ($turns as [$who, $days, $is]) {
            $this->as($who);
            $this->changeSupplier(['net_days' => $days]);
            self::assertSame($is, $unseen(), sprintf('net %s by %s', $days, $who));
        }
    }

    /** @param array<string, string> $values */
    private function changeSupplier(array $values): void
    {
        $form = $this->see('/suppliers/LUMEN')->filter('#supplier')->form();
        foreach ($values as $field => $value) {
            $form[$field] = $value;
        }
        $this->browser->submit($form);
        self::assertResponseRedirects();
    }

    /** The rate of a day cannot be moved to slip under a limit. */
    public function testAForeignOrderCountsAtTheRateThatMakesItDearest(): void
    {
        $rate = function (string $day, string $foreignForOne): void {
            $this->connection()->executeStatement(
                "REPLACE INTO exchange_rate (currency, day, foreign_for_one, source) VALUES ('GBP', ?, ?, 'a test')",
                [$day, $foreignForOne],
            );
        };
        $this->connection()->executeStatement(
            "UPDATE purchase_order SET currency = 'GBP', foreign_for_one = 0.9 WHERE number = 'PO-1082'",
        );
        $approval = self::getContainer()->get(Approval::class);
        $rates = self::getContainer()->get(Rates::class);
        self::assertInstanceOf(Approval::class, $approval);
        self::assertInstanceOf(Rates::class, $rates);
        $order = $this->entities()->getRepository(PurchaseOrder::class)->findOneBy(['number' => 'PO-1082']);
        $mara = $this->entities()->find(Person::class, $this->id('mara'));
        self::assertNotNull($order);
        self::assertNotNull($mara);
        foreach (
            [['0.9', '0.9', false], ['0.001', '0.9', true], ['0.9', '0.001', true]] as [$yesterday, $today, $isOver]
        ) {
            $rate('2026-11-22', $yesterday);
            $rate('2026-11-23', $today);
            $rates->reset();
            $objection = (string) $approval->objection($order, $mara);
            self::assertSame($isOver, str_contains($objection, 'over the limit of 2,500.00 an order'), $objection);
        }
    }

    public function testRatesAreBroughtByAnOwner(): void
    {
        $this->as('mara');
        $this->post('/own-data/rates');
        self::assertResponseStatusCodeSame(403);
        self::assertStringContainsString('an owner brings them', $this->text());
        $this->as('rowan');
        $this->post('/own-data/rates');
        self::assertResponseStatusCodeSame(422);
    }
}
