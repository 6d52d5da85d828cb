<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** A supplier's price list from the file to the offers; and an offer by hand. */
final class PriceListsTest extends DeskTestCase
{
    /** @param array<string, string> $terms */
    private function bring(string $content, array $terms = [], string $supplier = 'VETRASOL'): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'csv');
        file_put_contents($file, $content);
        $token = $this->see('/suppliers')->filter('meta[name="csrf-token"]')->attr('content');
        $this->browser->request('POST', "/suppliers/$supplier/prices", ['_token' => $token] + $terms, [
            'file' => new UploadedFile($file, 'list.csv', 'text/csv', null, true),
        ]);
        if (!$this->browser->getResponse()->isRedirect()) {
            return '';
        }
        $this->browser->followRedirect();

        return (string) parse_url($this->browser->getRequest()->getUri(), \PHP_URL_PATH);
    }

    /** @return array<string, int> rows by kind, as the tabs say */
    private function kinds(): array
    {
        $kinds = [];
        $this->browser
            ->getCrawler()
            ->filter('nav[aria-label="Kinds of line"] a')
            ->each(static function (Crawler $tab) use (&$kinds): void {
                preg_match('/^(.*) ([\d,]+)$/', trim((string) preg_replace('/\s+/', ' ', $tab->text())), $found);
                $kinds[$found[1] ?? ''] = (int) ($found[2] ?? 0);
            });

        return $kinds;
    }

    private function price(string $code): string
    {
        /** @var array<string, string> $steps */
        $steps = $this->connection()->fetchAllKeyValue(
            'SELECT b.from_packs, b.price FROM price_break b JOIN offer o ON o.id = b.offer_id
                WHERE o.supplier_code = ? ORDER BY b.from_packs',
            [$code],
        );

        return implode(
            ' ',
            array_map(
                static fn (string $from, string $price): string => (float) $from.'='.(float) $price,
                array_keys($steps),
                $steps,
            ),
        );
    }

    public function testEachLineIsPutWhereItBelongs(): void
    {
        $this->as('mara');
        $this->bring(
            implode("\n", [
                'code,prices,item,description,pack,content',
                'VG-0370-H,1=9.58 40=9.24 80=9.00,,,case,12', // 9.58 / 9.30 = +3.0 %
                'VG-0340-R,1=7.80 40=7.53 80=7.33,,,,', // as it stands
                'VG-0190-H,1=7.50 40=7.30 80=7.20,,,,', // 7.20 / 6.30 = +14.3 %
                'VG-0110-H,1=5.80 40=5.60 80=5.50,,,,', // cheaper
                'VG-0227-R,6.90,,,case,10', // fewer in a case
                'VG-NEW,4.40,HIV-NRFP,Roof,each,1',
                'VG-ELSE,3,,A demijohn,each,1',
                ',22.1,BOT-250P,,tray,24', // known by our code: theirs is missing
            ]),
            ['complete' => '1', 'limit' => '5', 'from' => '2026-12-01'],
        );
        $gone =
            (int) $this->number(
                "SELECT COUNT(*) FROM offer o JOIN supplier s ON s.id = o.supplier_id WHERE s.code = 'VETRASOL'",
            ) - 6;
        self::assertSame(
            [
                'Striking' => 2,
                'Dearer' => 2,
                'Cheaper' => 1,
                'New offers' => 1,
                'Not listed any more' => $gone,
                'Unchanged' => 1,
                'Nothing we hold' => 1,
            ],
            $this->kinds(),
        );
        $striking = $this->browser->getCrawler()->filter('#lines')->text();
        self::assertStringContainsString('+14.3 %', $striking);
        self::assertStringContainsString('case of 10, was 12', $striking);
        self::assertCount(
            0,
            $this->browser->getCrawler()->filter('#lines input[type="checkbox"][checked]'),
            'a striking line waits to be ticked',
        );
        self::assertStringContainsString('5 lines ticked', $this->browser->getCrawler()->filter('#strip')->text());
    }

    public function testChosenLinesHoldAtOnceTheOthersStayAndOldPricesAreKept(): void
    {
        $this->as('mara');
        $list = $this->bring(
            "code,prices\nVG-0370-H,1=9.58 40=9.24 80=9.00\nVG-0190-H,1=7.50 40=7.30 80=7.20\nVG-0110-H,5.50\n",
        );
        $row = $this->number("SELECT MAX(id) FROM price_list_row WHERE code = 'VG-0110-H'");
        $this->post($list.'/chosen', ['show' => 'fall', 'shown' => [(int) $row => '1']]);
        $this->post($list, ['do' => 'apply', 'from' => '2026-11-23', 'limit' => '5']);
        self::assertResponseRedirects($list, null, $this->text());
        $this->browser->followRedirect();
        self::assertStringContainsString('1 line is applied', $this->text());
        self::assertSame(
            ['1=9.58 40=9.24 80=9', '1=6.7 40=6.47 80=6.3', '1=5.9 40=5.69 80=5.55'],
            [$this->price('VG-0370-H'), $this->price('VG-0190-H'), $this->price('VG-0110-H')],
        );
        $offer = (int) $this->number("SELECT id FROM offer WHERE supplier_code = 'VG-0370-H'");
        $history = $this->see('/suppliers/VETRASOL/offers/'.$offer)
            ->filter('aside')
            ->text();
        self::assertStringContainsString('price list of 23 Nov 2026, list.csv', $history);
        self::assertStringContainsString('9.30, 8.97 from 40, 8.74 from 80', $history, 'what it cost before');
        $this->post($list, ['do' => 'apply', 'limit' => '5']);
        self::assertStringContainsString('applied on 23 Nov 2026 10:30 already', $this->text());
    }

    public function testAListFromALaterDayWaitsForItAndMovesEndDates(): void
    {
        $this->as('rowan');
        $this->connection()->executeStatement(
            "UPDATE offer SET valid_until = '2026-12-31' WHERE supplier_code = 'VG-0370-H'",
        );
        $list = $this->bring(
            "code,prices,item,pack,content,lead_days\nVG-0370-H,9.60,,,,\nVG-CAN,4.40,HIV-NRFP,each,1,12\n",
            ['complete' => '1', 'from' => '2027-01-01', 'until' => '2027-06-30', 'limit' => '20'],
        );
        $gone = (int) $this->number(
            "SELECT MAX(r.id) FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                WHERE o.supplier_code = 'VG-0110-H'",
        );
        $this->post($list.'/chosen', ['show' => 'gone', 'shown' => [$gone => '1'], 'chosen' => [$gone => '1']]);
        $this->post($list, ['do' => 'apply', 'from' => '2027-01-01', 'until' => '2027-06-30', 'limit' => '20']);
        $this->browser->followRedirect();
        self::assertStringContainsString('3 lines are applied; the new prices hold from 1 Jan 2027', $this->text());
        self::assertSame('1=9.3 40=8.97 80=8.74', $this->price('VG-0370-H'), 'not before its day');
        $ends = fn (string $code): mixed => $this->connection()->fetchOne(
            'SELECT CONCAT_WS(\' to \', valid_from, valid_until) FROM offer WHERE supplier_code = ?',
            [$code],
        );
        self::assertSame(
            ['2027-06-30', '2027-01-01 to 2027-06-30', '2026-12-31'],
            [$ends('VG-0370-H'), $ends('VG-CAN'), $ends('VG-0110-H')],
        );
        $prices = self::getContainer()->get(\TallBarrel\Store\Offer\OfferPrices::class);
        self::assertInstanceOf(\TallBarrel\Store\Offer\OfferPrices::class, $prices);
        self::assertSame(0, $prices->putInForce(new \DateTimeImmutable('2026-12-31')));
        self::assertSame(1, $prices->putInForce(new \DateTimeImmutable('2027-01-01')));
        self::assertSame('1=9.6', $this->price('VG-0370-H'));
    }

    public function testAWorkerPutsAPriceInForceOnItsDay(): void
    {
        $this->as('iris');
        $offer = (int) $this->number("SELECT id FROM offer WHERE supplier_code = 'VG-0370-H'");
        $this->connection()->executeStatement(
            "INSERT INTO offer_price (offer_id, from_day, steps, kind, basis, source, applied)
                VALUES (?, '2026-11-23', '[[\"1\",\"9.9\"]]', 'all-units', 'quantity', 'test', 0), (?, '2026-11-24',
                '[[\"1\",\"12\"]]', 'all-units', 'quantity', 'test', 0)",
            [$offer, $offer],
        );
        $this->work();
        self::assertStringContainsString(
            '9.90',
            $this->see('/suppliers/VETRASOL?offers=VG-0370')->filter('#offers + table')->text(),
        );
        self::assertSame('1=9.9', $this->price('VG-0370-H'));
        self::assertStringContainsString(
            'to come',
            $this->see('/suppliers/VETRASOL/offers/'.$offer)
                ->filter('aside')
                ->text(),
        );
    }

    public function testMistakesAreNamedByLineAndTheRestCanBeUsed(): void
    {
        $this->as('mara');
        $this->bring(
            implode("\n", [
                'code,prices,from,item,pack,content,currency',
                'VG-0370-H,9.58,1,,,,',
                'VG-0370-H,9.70,40,,,,', // a break that rises
                'VG-0340-R,x,,,,,',
                'VG-0110-H,0,,,,,',
                ',5,,,,,',
                'VG-0190-H,6.80,,,,,PLN',
                'VG-N,5,,NOSUCH,,,',
                'VG-0227-R,7.00,1,,,,',
                'VG-0227-R,6.80,40,,,,',
            ]),
        );
        self::assertSame(['Dearer' => 1, 'Cannot be used' => 6], $this->kinds());
        $this->see((string) $this->browser->getRequest()->getRequestUri().'?show=wrong');
        self::assertSame(
            '6 code empty missing',
            preg_replace('/\s+/', ' ', trim($this->browser->getCrawler()->filter('tr')->eq(4)->text())),
        );
        foreach (
            [
                'From 40 on the price rises from 9.58 to 9.7',
                '“x” is not a price',
                'a price of 0; leave the line out',
                'this supplier sells in EUR',
                'no such item',
            ] as $words
        ) {
            self::assertStringContainsString($words, $this->text());
        }
        self::assertSame('', $this->bring("code,prices\n"));
        self::assertStringContainsString(
            'lists nothing',
            $this->browser->getCrawler()->filter('#bring .error')->text(),
        );
        // A line that cannot be used does not make its offer gone, and another code for an item is asked about.
        $this->bring(
            "code,prices,item,pack,content\nVG-0370-H,x,,,\nVG-0340-R,7.80,,,\nX-1,6,JAR-110H,,\n"
            ."X-1,5,JAR-110H,each,1\n",
            ['complete' => '1'],
        );
        $offers = (int) $this->number(
            "SELECT COUNT(*) FROM offer o JOIN supplier s ON s.id = o.supplier_id WHERE s.code = 'VETRASOL'",
        );
        self::assertSame([$offers - 2, 2], [$this->kinds()['Not listed any more'], $this->kinds()['Cannot be used']]);
        self::assertSame('', $this->bring("VG-0370-H\nVG-0340-R\n"));
        self::assertStringContainsString(
            'has one column only',
            $this->browser->getCrawler()->filter('#bring .error')->text(),
        );
        self::assertSame(
            '',
            $this->bring("code,prices\nVG-0370-H,9\n", ['from' => '2027-01-01', 'until' => '2026-01-01']),
        );
        self::assertStringContainsString('would end on 1 Jan 2026', $this->text());
    }

    public function testAnOfferThatChangedMeanwhileStopsTheWholeList(): void
    {
        $this->as('mara');
        $list = $this->bring("code,prices\nVG-0370-H,1=9.40 40=9.00 80=8.80\nVG-0110-H,5.90\n", ['limit' => '10']);
        $this->connection()->executeStatement(
            "UPDATE price_break b JOIN offer o ON o.id = b.offer_id SET b.price = 9.31
                WHERE o.supplier_code = 'VG-0370-H' AND b.from_packs = 1",
        );
        $this->post($list, ['do' => 'apply', 'limit' => '10']);
        $this->browser->followRedirect();
        self::assertStringContainsString(
            'An offer changed since this list was read: VG-0370-H. Nothing was applied',
            $this->text(),
        );
        self::assertSame('1=5.9 40=5.69 80=5.55', $this->price('VG-0110-H'));
    }

    public function testMovingTheLimitTicksAfreshAndWhatStandsReadsBackAsUnchanged(): void
    {
        $this->as('mara');
        $list = $this->bring("code,prices\nVG-0370-H,10.00\nVG-0110-H,1=6.00 40=5.80 80=5.60\n");
        self::assertSame(['Striking' => 1, 'Dearer' => 1], $this->kinds());
        $this->post($list, ['do' => 'set', 'limit' => '1']);
        $this->browser->followRedirect();
        self::assertSame(['Striking' => 2], $this->kinds());
        $this->post($list, ['do' => 'set', 'limit' => '30']);
        $this->browser->followRedirect();
        self::assertSame(['Dearer' => 2], $this->kinds());
        $this->post($list, ['do' => 'leave']);
        $this->see('/suppliers/VETRASOL/prices/standing.csv');
        $this->bring((string) $this->browser->getResponse()->getContent(), ['complete' => '1']);
        self::assertSame(['Unchanged'], array_keys($this->kinds()));
    }

    public function testOnlyBuyersBringPrices(): void
    {
        $this->as('iris');
        self::assertCount(0, $this->see('/suppliers/VETRASOL/prices')->filter('#bring'));
        $this->post('/suppliers/VETRASOL/prices', ['from' => '2026-12-01']);
        self::assertResponseStatusCodeSame(403);
    }

    public function testAnOfferIsChangedByHandAndRemembersItsPrice(): void
    {
        $this->as('mara');
        $offer = (int) $this->number("SELECT id FROM offer WHERE supplier_code = 'VG-0370-H'");
        $path = '/suppliers/VETRASOL/offers/'.$offer;
        /** @var array<string, mixed> $form */
        $form = array_diff_key($this->see($path)->filter('#offer')->form()->getPhpValues(), ['_token' => 1]);
        $this->post(
            $path,
            [
                'prices' => '1=9.90 40=9.20',
                'discounts' => '10 + 5',
                'content' => '1',
                'content_unit' => 'DZN',
                'tariff_number' => '7010.90.45',
                'blocked' => '1',
            ] + $form,
        );
        self::assertResponseRedirects($path);
        $this->browser->followRedirect();
        self::assertStringContainsString('blocked', $this->browser->getCrawler()->filter('.title')->text());
        // 9.90 × 0.9 × 0.95 = 8.4645 a case, 12 in it: 0.7054
        self::assertStringContainsString('0.7054', $this->browser->getCrawler()->filter('aside')->text());
        self::assertSame(
            '1 DZN',
            $this->connection()->fetchOne('SELECT stated_content FROM offer WHERE id = ?', [$offer]),
        );
        self::assertSame(3.0, $this->number('SELECT COUNT(*) FROM offer_price WHERE offer_id = ?', [$offer]));
        $wrong = [
            'prices' => '1=9.00 40=9.50',
            'content' => 'a lot',
            'duty_percent' => '400',
            'valid_from' => '2027-02-01',
            'valid_until' => '2027-01-01',
        ];
        $this->post($path, $wrong + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this offer', $this->text());
        $form['version'] = $this->browser->getCrawler()->filter('input[name="version"]')->attr('value');
        $this->post($path, $wrong + $form);
        foreach (
            [
                'From 40 on the price rises',
                '“a lot” is not a number',
                'A duty of 400 % is out of range',
                'would end on 1 Jan 2027',
            ] as $words
        ) {
            self::assertStringContainsString($words, $this->text());
        }
        self::assertSame(
            'a lot',
            $this->browser->getCrawler()->filter('input[name="content"]')->attr('value'),
            'nothing typed is lost',
        );
        self::assertSame('1=9.9 40=9.2', $this->price('VG-0370-H'));
    }

    public function testAnOfferIsAddedWhereThereWasNone(): void
    {
        $this->as('mara');
        $this->see('/suppliers/OSTREL/offers/new');
        $this->post('/suppliers/OSTREL/offers/new', ['item' => 'NOSUCH', 'prices' => '5', 'content' => '1']);
        self::assertStringContainsString('There is no item “NOSUCH”', $this->text());
        $this->post('/suppliers/OSTREL/offers/new', [
            'item' => 'JAR-370H · Hex jar',
            'pack' => 'Crate',
            'content' => '20',
            'prices' => '15.20',
            'supplier_code' => 'O-1',
            'rank' => '4',
            'outer_packs' => 'crate=4',
        ]);
        self::assertStringContainsString('A crate cannot contain a crate', $this->text());
        $this->post('/suppliers/OSTREL/offers/new', [
            'item' => 'JAR-370H · Hex jar',
            'pack' => 'Crate',
            'content' => '20',
            'prices' => '15.20',
            'supplier_code' => 'O-1',
            'rank' => '4',
        ]);
        $this->browser->followRedirect();
        self::assertStringContainsString('Hex jar 370 ml can be bought from Ostrel', $this->text());
        self::assertStringContainsString(
            'Vetrasol Glassworks',
            $this->browser->getCrawler()->filter('aside')->text(),
            'who else sells it',
        );
    }

    public function testWhichColumnIsWhichIsAskedOnceForEachSupplier(): void
    {
        $this->as('mara');
        $file = "Kennung;Farbe;Neu ab Jänner\nVG-0370-H;grün;10,20\nVG-0110-H;blau;6,10\n";
        $list = $this->bring($file);
        self::assertStringContainsString('which column is which?', $this->text());
        self::assertStringContainsString('10,20 · 6,10', $this->text());
        $say = fn (string ...$columns): Crawler => $this->post($list.'/columns', [
            'heading' => ['Kennung', 'Farbe', 'Neu ab Jänner'],
            'column' => $columns,
        ]);
        self::assertStringContainsString('No column is said to be prices', $say('code', '', '')->text());
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('cannot both be “prices”', $say('code', 'prices', 'prices')->text());
        self::assertSame(
            'prices',
            $this->browser->getCrawler()->filter('[name="column[1]"] option[selected]')->attr('value'),
            'what was chosen stands',
        );
        $say('code', '', 'prices');
        self::assertResponseRedirects();
        $this->work();
        $this->see($list);
        self::assertSame(2, array_sum($this->kinds()));
        self::assertStringContainsString('was read already', $say('code', '', 'prices')->text());

        $this->bring($file);
        self::assertStringNotContainsString('which column is which?', $this->text(), 'it is remembered');
        $other = $this->bring($file, [], 'TINDAVIK');
        self::assertStringContainsString('which column is which?', $this->text(), 'others may mean other things');
        $this->post($other, ['do' => 'leave']);
        self::assertResponseRedirects('/suppliers/TINDAVIK/prices');
    }
}
