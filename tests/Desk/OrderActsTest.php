<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;

/** What is done with an order from its page once it is out, and what a page fetches only when it is asked for. */
final class OrderActsTest extends DeskTestCase
{
    private function order(string $number): PurchaseOrder
    {
        $this->entities()->clear();
        $order = $this->entities()->getRepository(PurchaseOrder::class)->findOneBy(['number' => $number]);
        self::assertNotNull($order);

        return $order;
    }

    /** One that is out, with something still to come and nothing received. */
    private function out(): PurchaseOrder
    {
        $number = $this->connection()->fetchOne(
            "SELECT o.number FROM purchase_order o JOIN order_line l ON l.order_id = o.id
                WHERE o.state IN ('sent', 'acknowledged') GROUP BY o.id
                HAVING SUM(l.received) = 0 AND COUNT(*) > 1 ORDER BY o.id DESC LIMIT 1",
        );
        self::assertIsString($number);

        return $this->order($number);
    }

    /** @param array<string, mixed> $fields */
    private function act(PurchaseOrder $order, string $act, array $fields = [], ?int $version = null): string
    {
        $this->post(
            '/orders/'.$order->number.'/'.$act,
            ['version' => (string) ($version ?? (int) $this->number(
                'SELECT version FROM purchase_order WHERE id = ?',
                [$order->id],
            ))] + $fields,
        );
        self::assertResponseRedirects('/orders/'.$order->number);
        $this->browser->followRedirect();

        return $this->text();
    }

    public function testOneLineIsClosedShortAndOpenedAgain(): void
    {
        $this->as('mara');
        $order = $this->out();
        [$first, $second] = $order->lines();
        $said = $this->act($order, 'close', ['close' => [$first->id => '1'], 'agreed' => 'told by Kay']);
        self::assertStringContainsString('What was outstanding there is closed.', $said);
        $order = $this->order($order->number);
        self::assertTrue($order->lines()[0]->outstanding()->isZero());
        self::assertTrue($order->lines()[0]->closedShort()->isEqualTo($first->packs()));
        self::assertTrue($order->lines()[1]->outstanding()->isEqualTo($second->outstanding()));
        self::assertStringContainsString('told by Kay', $said);
        $this->act($order, 'reopen');
        self::assertTrue($this->order($order->number)->lines()[0]->outstanding()->isEqualTo($first->outstanding()));
    }

    public function testWhoLooksAtAnOlderOrderIsToldAndNothingIsDone(): void
    {
        $this->as('mara');
        $order = $this->out();
        foreach (['close', 'cancel', 'link', 'reopen', 'unconfirmed'] as $act) {
            $this->act($order, $act, ['close' => [$order->lines()[0]->id => '1'], 'reason' => 'none'], 9999);
            $now = $this->order($order->number);
            self::assertSame($order->state(), $now->state(), $act);
            self::assertTrue($now->lines()[0]->closedShort()->isZero(), $act);
        }
    }

    public function testAWithdrawnLinkLeadsNowhere(): void
    {
        $this->as('mara');
        $order = $this->out();
        $token = $this->connection()->fetchOne('SELECT token FROM purchase_order WHERE id = ?', [$order->id]);
        self::assertIsString($token);
        $this->see('/order/'.$token);
        self::assertResponseIsSuccessful();
        $said = $this->act($order, 'link');
        self::assertStringContainsString('The link they have leads nowhere any more', $said);
        $this->see('/order/'.$token);
        self::assertResponseStatusCodeSame(404);
    }

    public function testASentOrderIsCancelledOnlyOnceTheyKnow(): void
    {
        $this->as('mara');
        $order = $this->out();
        $line = $order->lines()[0]->id;
        $this->act($order, 'cancel', ['reason' => 'No longer needed']);
        $once = $this->order($order->number)->state()->value;
        $said = $this->act($order, 'cancel', ['reason' => 'No longer needed', 'they_know' => '1']);
        self::assertStringContainsString($order->number, $said);
        self::assertSame('cancelled', $this->order($order->number)->state()->value);
        self::assertContains($once, ['cancelled', $order->state()->value]);
        $said = $this->act($order, 'close', ['close' => [$line => '1'], 'agreed' => 'Kay']);
        self::assertStringContainsString('there is nothing outstanding to close', $said);
    }

    public function testADraftThrownAwayCanBeOpenedAgain(): void
    {
        $this->as('mara');
        $order = $this->order('PO-1082');
        $said = $this->act($order, 'cancel');
        self::assertStringContainsString('PO-1082 is thrown away; it can be opened again.', $said);
        $said = $this->act($order, 'reopen');
        self::assertStringContainsString('PO-1082 is open again', $said);
        self::assertSame('draft', $this->order('PO-1082')->state()->value);
    }

    public function testWhatOnlyWeReadIsKeptAndAWrongDayIsSaid(): void
    {
        $this->as('mara');
        $order = $this->out();
        $said = $this->act($order, 'remember', [
            'their_reference' => 'K-4711',
            'reminder' => 'Ask for the pallet back',
            'remind_on' => '2026-12-01',
        ]);
        self::assertStringContainsString('Kept.', $said);
        self::assertStringContainsString('K-4711', $said);
        $said = $this->act($order, 'remember', ['their_reference' => 'K-4712', 'remind_on' => '2026-02-30']);
        self::assertStringContainsString('2026-02-30', $said);
        self::assertStringContainsString('K-4711', (string) $this->browser->getResponse()->getContent());
        self::assertStringNotContainsString('K-4712', $said);
    }

    public function testTheirListIsFetchedWhenItIsAskedFor(): void
    {
        $this->as('mara');
        $this->see('/orders/PO-1082');
        $before = (string) $this->browser->getResponse()->getContent();
        self::assertStringNotContainsString('name="pick[', $before);
        $this->see('/orders/PO-1082/list');
        self::assertResponseIsSuccessful();
        $list = (string) $this->browser->getResponse()->getContent();
        $offered = (int) $this->number(
            "SELECT COUNT(*) FROM offer_in_force f JOIN purchase_order o ON o.supplier_id = f.supplier_id
                WHERE o.number = 'PO-1082' AND '2026-11-23' BETWEEN f.from_day AND f.until_day",
        );
        self::assertGreaterThan(0, $offered);
        self::assertSame(min(300, $offered), substr_count($list, 'name="pick['));
        $sent = $this->out();
        $this->see('/orders/'.$sent->number.'/list');
        self::assertResponseIsSuccessful();
        self::assertStringNotContainsString('name="pick[', (string) $this->browser->getResponse()->getContent());
    }

    public function testLinesFurtherDownAreFetchedAsOneScrolls(): void
    {
        $this->as('mara');
        $order = $this->order('PO-1082');
        $codes = array_map(static fn ($line): string => (string) $line->item?->code, $order->lines());
        $this->see('/orders/PO-1082/lines?from=1');
        self::assertResponseIsSuccessful();
        $text = $this->text();
        self::assertStringContainsString($codes[1], $text);
        self::assertStringNotContainsString($codes[0], $text);
        $this->see('/orders/PO-1082/lines?from=-5');
        self::assertStringContainsString($codes[0], $this->text());
        $this->see('/orders/PO-1082/lines?from=9000');
        self::assertResponseIsSuccessful();
    }

    public function testWhatTheyWouldGetAndWhatItWillCostArePapers(): void
    {
        $this->as('mara');
        foreach (['preview', 'costing'] as $paper) {
            $this->see('/orders/PO-1082/'.$paper.'.pdf');
            self::assertResponseIsSuccessful();
            self::assertStringStartsWith('%PDF-', (string) $this->browser->getResponse()->getContent());
            self::assertSame('application/pdf', $this->browser->getResponse()->headers->get('Content-Type'));
        }
        $this->as('tam');
        $this->see('/orders/PO-1082/preview.pdf');
        self::assertResponseIsSuccessful();
    }

    public function testAPaperOfAnotherOrderIsNotThisOnes(): void
    {
        $this->as('mara');
        $other = $this->out();
        $document = new SentDocument(
            $other,
            1,
            'paper.pdf',
            'application/pdf',
            'kay@testing.example',
            new \DateTimeImmutable('2026-11-20'),
            '%PDF-1.7 as sent',
        );
        $this->entities()->persist($document);
        $this->entities()->flush();
        $this->see(sprintf('/orders/%s/sent/%d', $other->number, $document->id));
        self::assertResponseIsSuccessful();
        self::assertSame('%PDF-1.7 as sent', $this->browser->getResponse()->getContent());
        $this->see(sprintf('/orders/PO-1082/sent/%d', $document->id));
        self::assertResponseStatusCodeSame(404);
        $this->see('/orders/PO-1082/sent/999999');
        self::assertResponseStatusCodeSame(404);
        $this->see('/orders/PO-NONE');
        self::assertResponseStatusCodeSame(404);
    }

    public function testEarlierOrdersToTheSameSupplierAreOfferedAndNotTheOrderItself(): void
    {
        $this->as('mara');
        $order = $this->order('PO-1082');
        $this->see('/orders/PO-1082/earlier');
        self::assertResponseIsSuccessful();
        $text = $this->text();
        self::assertStringNotContainsString('PO-1082', $text);
        $others = $this->connection()->fetchFirstColumn(
            "SELECT number FROM purchase_order WHERE supplier_id = ? AND number <> 'PO-1082' ORDER BY id DESC LIMIT 2",
            [$order->supplier->id],
        );
        self::assertNotSame([], $others);
        foreach ($others as $number) {
            self::assertIsString($number);
            self::assertStringContainsString($number, $text);
        }
    }

    public function testTheLetterIsShownBeforeItIsChanged(): void
    {
        $this->as('mara');
        $this->see('/orders/PO-1082/letter');
        self::assertResponseIsSuccessful();
        $order = $this->out();
        $this->see('/orders/'.$order->number.'/letter');
        self::assertStringContainsString(
            'Mara',
            (string) $this->browser->getResponse()->getContent(),
            'whoever would send it signs it',
        );
    }

    public function testTheStockroomActsOnNoOrder(): void
    {
        $order = $this->out();
        $this->as('tam');
        foreach (['close', 'cancel', 'link', 'reopen', 'remember', 'approve', 'back', 'send'] as $act) {
            $this->post('/orders/'.$order->number.'/'.$act, ['version' => '1']);
            self::assertResponseStatusCodeSame(403, $act);
        }
    }
}
