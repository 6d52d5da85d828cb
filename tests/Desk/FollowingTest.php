<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Transport\TransportInterface;
use TallBarrel\Desk\Settings\StoppedWork;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Work\Sourcing\PriceListToRead;

/** Whatever changes what planning rests on, Reorder follows by itself. */
final class FollowingTest extends DeskTestCase
{
    /**
     * @return array{id: int, item: int, site: int, code: string, site_code: string} a proposal that is due, ticked and
     *      not drafted
     */
    private function due(): array
    {
        $row = $this->connection()->fetchAssociative(
            "SELECT p.id, p.item_id item, p.site_id site, i.code, s.code site_code FROM proposal p
                JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
             JOIN offer o ON o.id = p.offer_id WHERE p.reason LIKE 'below%' AND p.draft_id IS NULL AND p.chosen = 1
             AND p.moves = '[]'
               AND i.lot_tracked = 0 AND o.supplier_code <> '' AND p.packs BETWEEN 2 AND 20
               AND EXISTS (SELECT 1 FROM supplier_address a WHERE a.supplier_id = o.supplier_id)
             ORDER BY p.forecast_per_week DESC, p.id LIMIT 1",
        );
        self::assertIsArray($row);

        /** @var array{id: int, item: int, site: int, code: string, site_code: string} $row */
        return $row;
    }

    private function coming(int $proposal): float
    {
        return $this->number('SELECT coming FROM proposal WHERE id = ?', [$proposal]);
    }

    private function draftOf(int $proposal): string
    {
        $number = $this->connection()->fetchOne(
            'SELECT o.number FROM proposal p JOIN purchase_order o ON o.id = p.draft_id WHERE p.id = ?',
            [$proposal],
        );

        return is_string($number) ? $number : '';
    }

    private function version(string $order): string
    {
        return (string) (int) $this->number('SELECT version FROM purchase_order WHERE number = ?', [$order]);
    }

    /** Another process writes: a worker that read before plans with what stands now. */
    public function testAWorkerDoesNotRememberRatesThatChanged(): void
    {
        $rates = self::getContainer()->get(Rates::class);
        self::assertInstanceOf(Rates::class, $rates);
        $today = new \DateTimeImmutable('2026-11-23');
        $zloty = static fn (): float => $rates->on('PLN', $today)->foreignForOne->toFloat();
        $before = $zloty();
        $this->connection()->executeStatement(
            "INSERT INTO exchange_rate (currency, day, foreign_for_one, source) VALUES ('PLN', ?, ?, 'a bank')
                ON DUPLICATE KEY UPDATE foreign_for_one = VALUES(foreign_for_one)",
            [$today->format('Y-m-d'), 2 * $before],
        );
        self::assertSame($before, $zloty());
        $this->work();
        self::assertEqualsWithDelta(2 * $before, $zloty(), 1e-6);
    }

    public function testDraftingSendingAndCancelling(): void
    {
        $this->as('rowan');
        $due = $this->due();
        $this->connection()->executeStatement('UPDATE proposal SET chosen = 0 WHERE id <> ?', [$due['id']]);
        $this->post('/reorder/draft');
        $order = $this->draftOf($due['id']);
        self::assertStringStartsWith('PO-', $order);
        $before = $this->coming($due['id']);
        $this->post('/orders/'.$order, ['version' => $this->version($order), 'do' => 'send', 'over_draw' => '1']);
        if ($this->browser->getResponse()->isRedirect()) {
            $this->browser->followRedirect();
        }
        self::assertSame(
            'sent',
            $this->connection()->fetchOne('SELECT state FROM purchase_order WHERE number = ?', [$order]),
            $this->text(),
        );
        self::assertGreaterThan($before, $this->coming($due['id']), 'sent, it is on its way');
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM moved_item'), 'nothing is left to be planned');
        $this->post('/orders/'.$order.'/cancel', ['version' => $this->version($order), 'reason' => 'Not wanted.']);
        self::assertSame($before, $this->coming($due['id']), 'cancelled, it is not');
        self::assertSame('', $this->draftOf($due['id']));
    }

    public function testALineTakenOffADraftIsDueAgain(): void
    {
        $this->as('mara');
        $due = $this->due();
        $this->post('/reorder/draft');
        $this->work();
        $order = $this->draftOf($due['id']);
        $line = (int) $this->number(
            'SELECT l.id FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE o.number = ? AND l.item_id = ? AND l.site_id = ?',
            [$order, $due['item'], $due['site']],
        );
        $this->post('/orders/'.$order, ['version' => $this->version($order), 'remove' => [$line => '1']]);
        self::assertResponseRedirects('/orders/'.$order);
        self::assertSame('', $this->draftOf($due['id']));
    }

    /**
     * @return iterable<string, array{string, string, string}> kind of file, its content with {item} and {site}, what
     *      must differ
     */
    public static function files(): iterable
    {
        yield 'stock' => ['stock', "item,site,quantity\n{item},{site},90000\n", 'on_hand'];
        yield 'planned demand' => [
            'plans',
            "item,site,day,quantity,name\n{item},{site},2026-11-28,5000,Fair\n",
            'packs',
        ];
        yield 'sales' => [
            'sales',
            "item,site,day,quantity\n{item},{site},2026-11-20,900\n{item},{site},2026-11-21,900\n"
            ."{item},{site},2026-11-22,900\n",
            'forecast',
        ];
    }

    #[DataProvider('files')]
    public function testWhatIsBroughtByFile(string $kind, string $content, string $column): void
    {
        $this->as('mara');
        $due = $this->due();
        $seen = fn (): mixed => $this->connection()->fetchOne(
            "SELECT $column FROM proposal WHERE id = ?",
            [$due['id']],
        );
        $before = $seen();
        $this->post($this->bringOwnData(
            $kind,
            strtr($content, ['{item}' => $due['code'], '{site}' => $due['site_code']]),
        ));
        self::assertNotSame($before, $seen());
    }

    public function testThePageSaysWhatIsBeingPlannedAndTheWorkerFinishesIt(): void
    {
        $this->as('mara');
        $this->connection()->executeStatement(
            'INSERT INTO moved_item (item_id) SELECT id FROM item ORDER BY id LIMIT 40',
        );
        self::assertStringContainsString(
            '40 items changed and are being planned again',
            $this->see('/reorder')->filter('#planning')->text(),
        );
        $this->work();
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM moved_item'));
        self::assertSame('', trim($this->see('/reorder')->filter('#planning')->text()));
    }

    public function testOrdersAPersonCountsOnAreNotSaidToBeGivenUp(): void
    {
        $this->as('rowan');
        $order = $this->connection()->fetchOne("SELECT number FROM open_line WHERE due < '2026-11-01' LIMIT 1");
        self::assertIsString($order);
        self::assertStringContainsString('planning no longer counts on it', $this->see('/')->filter('body')->text());
        $this->post('/orders/'.$order.'/count-on', ['count' => '1']);
        self::assertStringNotContainsString(
            $order.', ',
            implode(
                ' ',
                $this->see('/')
                    ->filter('li, article, .entry')
                    ->each(
                        static fn ($one): string => str_contains($one->text(), 'no longer counts') ? $one->text() : '',
                    ),
            ),
        );
    }

    public function testWorkThatWasGivenUpIsNamedTriedAgainOrDropped(): void
    {
        $this->as('rowan');
        self::assertSame([], $this->stopped());
        foreach ([1, 2] as $n) {
            $transport = self::getContainer()->get('messenger.transport.failed');
            self::assertInstanceOf(TransportInterface::class, $transport);
            $transport->send(new Envelope(new PriceListToRead(99990 + $n)));
        }
        self::assertStringContainsString('2 pieces of work were tried several times', $this->see('/')->text());
        $page = $this->see('/stopped-work');
        self::assertStringContainsString('A price list, to be read', $page->text());
        $forms = $page
            ->filter('form[action$="/again"], form[action$="/drop"]')
            ->each(static fn ($form): string => (string) $form->attr('action'));
        self::assertCount(4, $forms);
        $this->post($forms[0]);
        $this->post($forms[3]);
        self::assertSame([], $this->stopped());
        $this->post($forms[3]);
        $this->browser->followRedirect();
        self::assertStringContainsString('settled meanwhile', $this->text());
        $this->as('iris');
        $this->see('/stopped-work');
        self::assertResponseStatusCodeSame(403);
    }

    /** @return list<object> */
    private function stopped(): array
    {
        $stopped = self::getContainer()->get(StoppedWork::class);
        self::assertInstanceOf(StoppedWork::class, $stopped);

        return $stopped->all();
    }
}
