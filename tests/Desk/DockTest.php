<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\HttpFoundation\File\UploadedFile;

final class DockTest extends DeskTestCase
{
    private function start(string $number = 'PO-1077', string $site = 'FERRY'): string
    {
        $this->as('tam');
        $order = (int) $this->number('SELECT id FROM purchase_order WHERE number = ?', [$number]);
        $this->post('/dock/deliveries', [
            'order' => $number,
            'note' => '88-2041',
            'site' => (string) (int) $this->number('SELECT id FROM site WHERE code = ?', [$site]),
            'orders' => [$order => '1'],
        ]);
        $address = (string) $this->browser->getResponse()->headers->get('Location');
        self::assertMatchesRegularExpression('#^/dock/deliveries/\d+$#', $address);

        return $address;
    }

    /** @return list<array{id: int, code: string, gtin: string, packs: string}> */
    private function lines(string $address): array
    {
        /** @var list<array{id: int, code: string, gtin: string, packs: string}> $lines */
        $lines = $this->connection()->fetchAllAssociative(
            'SELECT d.id, i.code, i.gtin, l.packs FROM delivery_line d JOIN order_line l ON l.id = d.line_id
                JOIN item i ON i.id = l.item_id WHERE d.delivery_id = ? ORDER BY d.id',
            [basename($address)],
        );

        return $lines;
    }

    public function testLateDeliveriesStandFirst(): void
    {
        $this->as('tam');
        $headings = $this->see('/dock')->filter('nav.list h3')->each(static fn ($heading): string => $heading->text());
        self::assertSame('Late', $headings[0]);
        self::assertContains('Today', $headings);
    }

    public function testADeliveryNoteNumberIsNeeded(): void
    {
        $this->as('tam');
        $this->post('/dock/deliveries', ['order' => 'PO-1077', 'note' => '', 'site' => '1', 'orders' => []]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('The number on the delivery note is needed', $this->text());
        self::assertStringContainsString('Nothing of these orders is still to come', $this->text());
    }

    public function testScansCountByGtinAndCodeAndAStrangerIsNamed(): void
    {
        $address = $this->start();
        $line = $this->lines($address)[0];
        foreach (
            [
                ltrim($line['gtin'], '0') => 1.0,
                $line['code'] => 2.0,
                strtolower($line['code']).' 2' => 2.0,
            ] as $scan => $counted
        ) {
            $this->post($address, ['scan' => (string) $scan]);
            self::assertResponseRedirects($address);
            self::assertSame($counted, $this->number('SELECT counted FROM delivery_line WHERE id = ?', [$line['id']]));
        }
        $this->post($address, ['scan' => 'EQ-X9']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“EQ-X9” is on none of these orders', $this->text());
        self::assertSame(
            '',
            $this->browser->getCrawler()->filter('#scan')->attr('value') ?? '',
            'the next scan does not run on behind it',
        );
    }

    public function testASymbolIsReadAndABadOneIsNamedWithoutHarm(): void
    {
        $address = $this->start();
        $line = $this->lines($address)[0];
        $gtin = str_pad($line['gtin'], 14, '0', \STR_PAD_LEFT);
        $this->post($address, ['scan' => '01'.$gtin.'1727033110L-7']);
        self::assertResponseRedirects($address);
        $this->browser->followRedirect();
        self::assertStringContainsString('lot L-7, now 1', $this->text());
        $this->post($address, ['scan' => '(01)'.$gtin.'(17)270231']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('February 2027 has 28 days', $this->text());
    }

    public function testTwoPeopleCountOneDeliveryWithoutOverwritingEachOther(): void
    {
        $address = $this->start();
        [$first, $second] = $this->lines($address);
        $open = fn (): array => array_diff_key(
            $this->see($address)->filter('#count')->form()->getPhpValues(),
            ['_token' => 1, 'do' => 1],
        );
        $with = static function (array $form, array $counted): array {
            self::assertIsArray($form['counted']);

            return ['counted' => $counted + $form['counted'], 'do' => 'save'] + $form;
        };
        $counted = fn (int $id): float => $this->number(
            'SELECT COALESCE(counted, -1) FROM delivery_line WHERE id = ?',
            [$id],
        );
        $tams = $open();
        $maras = $open();
        $this->post($address, $with($tams, [$first['id'] => '4']));
        $this->as('rowan');
        // Rowan's page still shows nothing counted of the first.
        $this->post($address, $with($maras, [$second['id'] => '7']));
        self::assertResponseRedirects();
        self::assertSame([4.0, 7.0], [$counted($first['id']), $counted($second['id'])]);

        // Of the same line both counted something else: who comes second is told, and says it again.
        $page = $this->post($address, $with($maras, [$first['id'] => '5', $second['id'] => '7']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this line meanwhile: 4 counted.', $page->text());
        self::assertSame('5', $page->filter('#counted-'.$first['id'])->attr('value'), 'nothing typed is lost');
        self::assertSame(4.0, $counted($first['id']));
        /** @var array<string, mixed> $again */
        $again = array_diff_key($page->filter('#count')->form()->getPhpValues(), ['_token' => 1]);
        $this->post($address, ['do' => 'save'] + $again);
        self::assertSame(5.0, $counted($first['id']));
    }

    private function words(string $path): string
    {
        $this->browser->request('GET', $path);
        self::assertResponseIsSuccessful();
        $file = (string) tempnam(sys_get_temp_dir(), 'dock');
        file_put_contents($file, $this->browser->getResponse()->getContent());
        $words = (string) shell_exec('pdftotext -layout '.escapeshellarg($file).' -');
        unlink($file);

        return $words;
    }

    public function testTheCountingSheetKeepsBlindAndTheReceiptIsOnPaper(): void
    {
        $address = $this->start();
        $line = $this->lines($address)[0];
        self::assertStringContainsString('Ordered', $this->words($address.'/counting.pdf'));
        $blind = $this->words($address.'/counting.pdf?blind=1');
        self::assertStringNotContainsString('Ordered', $blind);
        self::assertStringContainsString($line['code'], $blind);
        $this->browser->request('GET', $address.'/receipt.pdf');
        self::assertResponseStatusCodeSame(404);
        $this->post($address, ['counted' => [$line['id'] => '2'], 'do' => 'book']);
        $paper = $this->words($address.'/receipt.pdf');
        self::assertMatchesRegularExpression('/Received R-\d+/', $paper);
        self::assertStringContainsString('2 case', $paper);
        self::assertStringContainsString('24 pcs', $paper);
    }

    public function testSomeNotGoodAreHeldBackAndAllOfItIsTakenBackAgain(): void
    {
        $address = $this->start();
        $line = $this->lines($address)[0];
        $form = [
            'counted' => [$line['id'] => '2'],
            'bad' => [$line['id'] => '1'],
            'because' => [$line['id'] => ''],
        ];
        $this->post($address, $form + ['do' => 'save']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Say what is wrong with them.', $this->text());
        $form['because'] = [$line['id'] => 'crushed'];
        $this->post($address, $form + ['do' => 'book']);
        $page = $this->see($address);
        self::assertStringContainsString('1 held back: crushed', $page->text());
        self::assertCount(2, $page->filter('input[name^="back["]'), 'good and bad each on a line');

        $back = array_fill_keys(
            $page->filter('input[name^="back["]')->each(
                static fn ($box): int => (int) preg_replace('/\D/', '', (string) $box->attr('name')),
            ),
            '1',
        );
        $this->post($address.'/take-back', ['back' => $back, 'why' => '']);
        self::assertStringContainsString('Say why it is taken back.', $this->see($address)->text());
        $this->post($address.'/take-back', ['back' => $back, 'why' => 'counted at the wrong door']);
        $page = $this->see($address);
        self::assertStringContainsString('stock, cost and order are as before', $page->text());
        self::assertStringContainsString('counted at the wrong door', $page->text());
        self::assertCount(0, $page->filter('input[name^="back["]'));
        $this->as('iris');
        $this->post($address.'/take-back', ['back' => $back, 'why' => 'x']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testAllAsOrderedThenBookedInOnceEvenWhenPressedTwice(): void
    {
        $address = $this->start();
        $lines = $this->lines($address);
        $units = $this->number(
            'SELECT SUM(l.packs * l.pack_content) FROM delivery_line d JOIN order_line l ON l.id = d.line_id
                WHERE d.delivery_id = ?',
            [basename($address)],
        );
        $held = $this->number('SELECT SUM(quantity) FROM stock_balance');
        $this->post($address, ['do' => 'all']);
        $this->post($address, ['do' => 'book']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Stock and cost have moved', $this->text());
        self::assertSame($held + $units, $this->number('SELECT SUM(quantity) FROM stock_balance'));
        self::assertSame(
            (float) count($lines),
            $this->number(
                'SELECT COUNT(*) FROM receipt_line l JOIN receipt r ON r.id = l.receipt_id WHERE r.delivery_id = ?',
                [basename($address)],
            ),
        );
        $this->post($address, ['do' => 'book']);
        self::assertSame($held + $units, $this->number('SELECT SUM(quantity) FROM stock_balance'));
        self::assertSame(
            'part-received',
            $this->connection()->fetchOne("SELECT state FROM purchase_order WHERE number = 'PO-1077'"),
            'the other sites still wait',
        );
    }

    public function testAWrongCountIsNamedAndTheOthersAreKept(): void
    {
        $address = $this->start();
        [$first, $second] = $this->lines($address);
        $this->post($address, ['do' => 'book', 'counted' => [$first['id'] => '3', $second['id'] => 'three']]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“three” is not a number', $this->text());
        self::assertSame(
            'three',
            $this->browser
                ->getCrawler()
                ->filter('#counted-'.$second['id'])
                ->attr('value'),
        );
        self::assertSame(
            '3',
            $this->browser
                ->getCrawler()
                ->filter('#counted-'.$first['id'])
                ->attr('value'),
        );
        self::assertSame(
            0.0,
            $this->number('SELECT COUNT(*) FROM receipt WHERE delivery_id = ?', [basename($address)]),
        );
    }

    public function testADeliveryBegunTwiceIsOneAndCanBeGivenUpUntilItIsBooked(): void
    {
        $address = $this->start();
        self::assertSame($address, $this->start(), 'the same note at the same site');
        $this->post($address.'/discard');
        $this->browser->followRedirect();
        self::assertStringContainsString('expected again', $this->text());
        self::assertSame(
            0.0,
            $this->number('SELECT COUNT(*) FROM delivery_line WHERE delivery_id = ?', [basename($address)]),
        );
        $booked = $this->start();
        $this->post($booked, ['do' => 'all']);
        $this->post($booked, ['do' => 'book']);
        $this->post($booked.'/discard');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('is booked in already', $this->text());
    }

    public function testHiddenAmountsAreNotOnThePage(): void
    {
        $address = $this->start();
        $this->see($address.'?blind=1');
        self::assertStringNotContainsString('Ordered', $this->browser->getCrawler()->filter('thead')->text());
        self::assertCount(0, $this->browser->getCrawler()->filter('button[value="all"]'));
    }

    public function testASiteWithoutBinsStillPutsAway(): void
    {
        $this->connection()->executeStatement(
            "UPDATE stocking SET bin_id = NULL WHERE site_id = (SELECT id FROM site WHERE code = 'FERRY')",
        );
        $address = $this->start();
        $this->post($address, ['do' => 'all']);
        $this->post($address, ['do' => 'book']);
        $this->browser->followRedirect();
        self::assertStringContainsString('Booked in as R-', $this->text());
    }

    public function testAPictureOfACountedLineStandsBesideIt(): void
    {
        $address = $this->start();
        $line = $this->lines($address)[0];
        $image = imagecreatetruecolor(40, 30);
        $file = (string) tempnam(sys_get_temp_dir(), 'torn');
        imagepng($image, $file);
        $form = $this->see($address)->filter('#came')->form();
        $this->browser->request('POST', $form->getUri(), ['line' => (string) $line['id']] + $form->getPhpValues(), [
            'file' => new UploadedFile($file, 'torn.png', 'image/png', null, true),
        ]);
        self::assertResponseRedirects();
        $page = $this->browser->followRedirect();
        self::assertStringContainsString('torn.png', $page->filter('#came')->text());
        $row = $page->filter('#count tbody tr')->first();
        self::assertStringContainsString($line['code'], $row->text());
        $this->see((string) $row->filter('a[href*="/attachments/"]')->attr('href'));
        self::assertResponseHeaderSame('Content-Type', 'image/png');
    }
}
