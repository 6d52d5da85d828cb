<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Keeping\Imports;

final class CsvImportTest extends StoreTestCase
{
    private string $file;

    protected function setUp(): void
    {
        $this->file = (string) tempnam(sys_get_temp_dir(), 'csv');
    }

    protected function tearDown(): void
    {
        unlink($this->file);
        parent::tearDown();
    }

    private function check(string $kind, string $content): ImportRun
    {
        file_put_contents($this->file, $content);

        return self::get(Imports::class)->check($kind, $this->file, 'mine.csv', self::person('mara'));
    }

    private function apply(ImportRun $run): ImportRun
    {
        self::assertTrue(self::get(Imports::class)->askToApply($run));
        $after = self::entities()->find(ImportRun::class, $run->id);
        self::assertNotNull($after);
        self::assertSame(ImportRun::APPLIED, $after->state(), $after->message());

        return $after;
    }

    private static function value(string $query): string
    {
        $value = self::connection()->fetchOne($query);

        return is_scalar($value) ? (string) $value : 'null';
    }

    public function testEverySampleIsGoodAndCanBeAppliedInOrder(): void
    {
        foreach (self::get(Imports::class)->forms() as $name => $form) {
            $file = fopen('php://temp', 'r+');
            self::assertNotFalse($file);
            foreach ([array_keys($form->columns), ...$form->sample] as $row) {
                fputcsv($file, $row, ',', '"', '', "\r\n");
            }
            $run = $this->check($name, (string) stream_get_contents($file, -1, 0));
            self::assertSame([], $run->problems(), $name);
            $this->apply($run);
        }
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testEveryBadRowIsNamedAndNothingIsApplied(): void
    {
        $before = self::value('SELECT COUNT(*) FROM sales_day');
        $run = $this->check(
            'sales',
            "item;site;day;quantity\nJAR-340R;FERRY;2022-01-05;12\nJAR-XXX;FERRY;2022-01-05;1\n"
            ."JAR-340R;NOWHERE;2022-01-06;1\nJAR-340R;FERRY;31.02.2024;1\nJAR-340R;FERRY;2022-01-07;twelve\n"
            ."JAR-340R;FERRY;2022-01-05;3\nJAR-340R;FERRY;2999-01-01;3\nJAR-340R;FERRY\n",
        );
        self::assertSame([8, 7], [$run->rows(), $run->badRows()]);
        $found = array_map(
            static fn (array $problem): array => [$problem[0], $problem[1], $problem[2]],
            $run->problems(),
        );
        foreach (
            [
                [3, 'item', 'JAR-XXX'],
                [4, 'site', 'NOWHERE'],
                [5, 'day', '31.02.2024'],
                [6, 'quantity', 'twelve'],
                [7, 'day', '2022-01-05'],
                [8, 'day', '2999-01-01'],
            ] as $expected
        ) {
            self::assertContains($expected, $found);
        }
        self::assertStringContainsString('stand in line 2 already', $run->problems()[4][3]);
        self::assertSame($before, self::value('SELECT COUNT(*) FROM sales_day'));
        $this->apply($run);
        self::assertSame(
            (string) ((int) $before + 1),
            self::value('SELECT COUNT(*) FROM sales_day'),
            'exactly the good row',
        );
    }

    public function testAStockCountMovesTheDifference(): void
    {
        $held = self::value(
            "SELECT quantity FROM stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
                WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT'",
        );
        $this->apply($this->check('stock', "item,site,quantity\nJAR-340R,DEPOT,777\n"));
        self::assertSame(
            '777.000',
            self::value(
                "SELECT quantity FROM stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
                    WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT'",
            ),
        );
        self::assertSame(
            (string) (777 - (int) $held),
            (string) (int) self::value(
                "SELECT quantity FROM stock_movement WHERE kind = 'count' ORDER BY id DESC LIMIT 1",
            ),
        );
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testAnEmptyCellLeavesAKnownValueAsItIs(): void
    {
        $this->apply(
            $this->check(
                'items',
                "\u{feff}code,name,unit,service\r\njar-340r,,,0.99\r\nNEW-1,\"A jar, \"\"wide\"\"\",EA,\r\n",
            ),
        );
        self::assertSame('Round honey jar 340 g', self::value("SELECT name FROM item WHERE code = 'JAR-340R'"));
        self::assertSame('0.990', self::value("SELECT service FROM item WHERE code = 'JAR-340R'"));
        self::assertSame('A jar, "wide"', self::value("SELECT name FROM item WHERE code = 'NEW-1'"));
    }

    public function testASuppliersFreightTermsAddressesAndPeopleComeByFile(): void
    {
        $this->apply(
            $this->check(
                'suppliers',
                'code,name,currency,freight_kind,freight_steps,net_days,end_of_month,instalments,minimum_kg,'
                .'quotes_contact,quotes_email,pay_street,pay_city,pay_country,paid_through,buyer,wants_csv,'
                ."notes\n"
                .'OSTREL,,,weight,0=9 30=18,30,yes,50@30 50@60,25,Ute Kern,preise@ostrel.example,Bankplatz 1,'
                ."Ostrel,DE,POLLENBY,mara@larkmoor.example,yes,Ring first\n",
            ),
        );
        self::assertSame(
            'weight|0=9 30=18|1|50@30 50@60|25.0|1|Ring first',
            self::value(
                "SELECT CONCAT_WS('|', freight_kind, freight_steps, end_of_month, instalments, minimum_kg, wants_csv,
                    notes) FROM supplier WHERE code = 'OSTREL'",
            ),
        );
        self::assertSame(
            'POLLENBY|mara@larkmoor.example',
            self::value(
                "SELECT CONCAT_WS('|', p.code, b.email) FROM supplier s JOIN supplier p ON p.id = s.paid_through_id
                    JOIN person b ON b.id = s.buyer_id WHERE s.code = 'OSTREL'",
            ),
        );
        self::assertSame(
            '2|2',
            self::value(
                "SELECT CONCAT_WS('|', (SELECT COUNT(*) FROM supplier_address a
                    WHERE a.supplier_id = s.id), (SELECT COUNT(*) FROM supplier_contact c WHERE c.supplier_id = s.id))
                    FROM supplier s WHERE s.code = 'OSTREL'",
            ),
        );
    }

    public function testAnOfferComesWithAllItsColumns(): void
    {
        $this->apply(
            $this->check(
                'offers',
                'supplier,item,supplier_code,pack,content,content_unit,prices,break_kind,discounts,'
                ."outer_packs,valid_from,valid_until,origin,tariff_number,duty_percent,inspected,blocked\n"
                .'OSTREL,JAR-370H,O-370,box,2,DZN,1=20 10=18,incremental,10 + 5,pallet=40,2026-12-01,'
                ."2027-12-01,de,70109045,2.5,yes,no\n",
            ),
        );
        self::assertSame(
            '24.000000|2 DZN|incremental|10 + 5|pallet=40|2026-12-01|DE|70109045|2.50|1|0',
            self::value(
                "SELECT CONCAT_WS('|', pack_content, stated_content, break_kind, discounts, outer_packs, valid_from,
                    origin, tariff_number, duty_percent, inspected, blocked) FROM offer WHERE supplier_code = 'O-370'",
            ),
        );
    }

    /** A column that is not there, or empty, leaves an offer as it is. */
    public function testGoodsOnConsignmentComeByFileAndStayWhatTheyAre(): void
    {
        $stands = static fn (): mixed => self::value(
            "SELECT CONCAT(consigned, ' ', consigned_days) FROM offer WHERE supplier_code = 'O-371'",
        );
        $with = fn (string $columns, string $values) => $this->apply($this->check(
            'offers',
            "supplier,item,supplier_code,pack,content,prices$columns\nOSTREL,JAR-370H,O-371,tray,6,9$values\n",
        ));
        $with(',consigned,consigned_days', ',yes,90');
        self::assertSame('1 90', $stands());
        $with('', '');
        self::assertSame('1 90', $stands());
        $with(',consigned', ',');
        self::assertSame('1 90', $stands());
        $with(',consigned', ',no');
        self::assertSame('0 0', $stands());
    }

    public function testAPriceListChangesPricesAndBreaks(): void
    {
        $this->apply(
            $this->check(
                'offers',
                "supplier,item,supplier_code,pack,content,prices,lead_days\n"
                ."VETRASOL,JAR-340R,VG-0340-R,case,12,1=8.10 60=7.70,6\n",
            ),
        );
        self::assertSame(
            '1.000=8.1000 60.000=7.7000',
            self::value(
                "SELECT GROUP_CONCAT(CONCAT(b.from_packs, '=', b.price) ORDER BY b.from_packs SEPARATOR ' ')
                    FROM price_break b JOIN offer o ON o.id = b.offer_id JOIN item i ON i.id = o.item_id
                    JOIN supplier s ON s.id = o.supplier_id WHERE i.code = 'JAR-340R' AND s.code = 'VETRASOL'",
            ),
        );
    }

    /** @return iterable<string, array{string, string, string, string}> */
    public static function badCells(): iterable
    {
        yield 'a unit that is none' => ['items', "code,name,unit\nA,B,KISTE\n", 'unit', 'not a unit code'];
        yield 'a GTIN mistyped' => ['items', "code,name,unit,gtin\nA,B,EA,6291041500214\n", 'gtin', 'check digit is 3'];
        yield 'a unit that cannot change' => ['items', "code,name,unit\nJAR-340R,,KGM\n", 'unit', 'kept in EA'];
        yield 'a service of everything' => ['items', "code,name,unit,service\nA,B,EA,1\n", 'service', 'out of range'];
        yield 'a pack with a comma' => [
            'items',
            "code,name,unit,packs\nA,B,EA,\"case=1,200\"\n",
            'packs',
            'no pack such',
        ];
        yield 'a customs number of words' => [
            'items',
            "code,name,unit,customs_number\nA,B,EA,honey\n",
            'customs_number',
            'no customs number',
        ];
        yield 'a site with a slash' => ['sites', "code,name\nA/B,Shed\n", 'code', 'no code of a site'];
        yield 'an email that is none' => [
            'suppliers',
            "code,name,currency,email\nA,B,EUR,nobody\n",
            'email',
            'not an email address',
        ];
        yield 'a currency that is none' => [
            'suppliers',
            "code,name,currency\nA,B,ZZQ\n",
            'currency',
            'is not a currency',
        ];
        yield 'a price that is none' => [
            'offers',
            "supplier,item,pack,content,prices\nVETRASOL,JAR-340R,case,12,cheap\n",
            'prices',
            '“cheap” is not a price',
        ];
        yield 'a pack with nothing in it' => [
            'offers',
            "supplier,item,pack,content,prices\nVETRASOL,JAR-340R,case,0,9\n",
            'content',
            'cannot hold 0',
        ];
        yield 'a break that rises' => [
            'offers',
            "supplier,item,pack,content,prices\nVETRASOL,JAR-340R,case,12,1=9 40=9.50\n",
            'prices',
            'From 40 on the price rises',
        ];
        yield 'two breaks at one place' => [
            'offers',
            "supplier,item,pack,content,prices\nVETRASOL,JAR-340R,case,12,1=9 40=8 40=7\n",
            'prices',
            'both start at 40',
        ];
        yield 'a unit that does not convert' => [
            'offers',
            "supplier,item,pack,content,content_unit,prices\nVETRASOL,JAR-340R,case,12,KGM,9\n",
            'content_unit',
            'cannot be converted',
        ];
        yield 'a pack that contains itself' => [
            'offers',
            "supplier,item,pack,content,outer_packs,prices\nVETRASOL,JAR-340R,case,12,case=4,9\n",
            'outer_packs',
            'cannot contain a case',
        ];
        yield 'a discount of everything' => [
            'offers',
            "supplier,item,pack,content,discounts,prices\nVETRASOL,JAR-340R,case,12,100,9\n",
            'discounts',
            'not a discount',
        ];
        yield 'a tariff number of five' => [
            'offers',
            "supplier,item,pack,content,tariff_number,prices\nVETRASOL,JAR-340R,case,12,12345,9\n",
            'tariff_number',
            '4, 6, 8 or 10',
        ];
        yield 'an offer that ends before it begins' => [
            'offers',
            "supplier,item,pack,content,valid_from,valid_until,prices\n"
            ."VETRASOL,JAR-340R,case,12,2027-02-01,2027-01-01,9\n",
            'valid_until',
            'before it begins',
        ];
        yield 'theirs for days, and not theirs' => [
            'offers',
            "supplier,item,pack,content,prices,consigned,consigned_days\nVETRASOL,JAR-340R,case,12,9,no,30\n",
            'consigned_days',
            'only where consigned says yes',
        ];
        yield 'theirs for ever and a day' => [
            'offers',
            "supplier,item,pack,content,prices,consigned,consigned_days\nVETRASOL,JAR-340R,case,12,9,yes,3651\n",
            'consigned_days',
            'not a whole number from 1 to 3650',
        ];
        yield 'freight that falls' => [
            'suppliers',
            "code,name,currency,freight_kind,freight_steps\nA,B,EUR,weight,0=18 30=9\n",
            'freight_kind',
            'cost no less',
        ];
        yield 'pallets of no weight' => [
            'suppliers',
            "code,name,currency,freight_kind\nA,B,EUR,pallet\n",
            'freight_kind',
            'kilograms that fill one',
        ];
        yield 'a country that is none' => [
            'suppliers',
            "code,name,currency,pay_street,pay_country\nA,B,EUR,Bank 1,Ireland\n",
            'pay_country',
            'not a country code',
        ];
        yield 'a buyer who is not here' => [
            'suppliers',
            "code,name,currency,buyer\nA,B,EUR,nobody@larkmoor.example\n",
            'buyer',
            'nobody here',
        ];
        yield 'paid through a stranger' => [
            'suppliers',
            "code,name,currency,paid_through\nA,B,EUR,NOSUCH\n",
            'paid_through',
            'no such supplier',
        ];
        yield 'instalments that do not add up' => [
            'suppliers',
            "code,name,currency,net_days,instalments\nA,B,EUR,30,50@30 40@60\n",
            'discount_days',
            '100',
        ];
        yield 'a rate of nothing' => ['rates', "currency,day,rate\nGBP,2026-11-01,0\n", 'rate', 'not above zero'];
        yield 'a rate for our own' => [
            'rates',
            "currency,day,rate\nEUR,2026-11-01,1\n",
            'currency',
            'our own currency',
        ];
        yield 'half a jar' => ['stock', "item,site,quantity\nJAR-340R,DEPOT,1.5\n", 'quantity', 'whole units'];
        yield 'a lot that is missing' => ['stock', "item,site,quantity\nMED-VS10,DEPOT,3\n", 'lot', 'kept by lot'];
        yield 'less than nothing' => ['stock', "item,site,quantity\nJAR-340R,DEPOT,-3\n", 'quantity', 'below zero'];
    }

    #[DataProvider('badCells')]
    public function testABadCellIsNamedByColumnAndReason(
        string $kind,
        string $content,
        string $column,
        string $reason,
    ): void {
        $run = $this->check($kind, $content);
        self::assertSame(1, $run->badRows());
        self::assertSame([2, $column], [$run->problems()[0][0], $run->problems()[0][1]]);
        self::assertStringContainsString($reason, $run->problems()[0][3]);
        self::assertFalse(self::get(Imports::class)->askToApply($run), 'there is nothing to apply');
    }

    /** @return iterable<string, array{string, string}> */
    public static function badFiles(): iterable
    {
        yield 'empty' => ['', 'The file is empty'];
        yield 'a spreadsheet' => ["PK\x03\x04\x00\x00", 'neither a CSV file nor a workbook'];
        yield 'a picture' => ["\x89PNG\r\n\x1a\n\0\0\0", 'neither a CSV file nor a workbook'];
        yield 'other columns' => ["colour,taste\n1,2\n", 'none of the columns of this list'];
    }

    #[DataProvider('badFiles')]
    public function testAFileThatIsNoneIsRefusedWhole(string $content, string $reason): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($reason);
        $this->check('sales', $content);
    }

    public function testAFileOfFiftyMegabytesIsRefusedByItsSize(): void
    {
        $file = fopen($this->file, 'w');
        self::assertNotFalse($file);
        ftruncate($file, 50 * 1024 * 1024);
        fclose($file);
        $this->expectExceptionMessage('mine.csv has 50 MB; at most 40 MB');
        self::get(Imports::class)->check('sales', $this->file, 'mine.csv', self::person('mara'));
    }

    public function testWhatFailsHalfWayLeavesNothingBehind(): void
    {
        $run = $this->check('stock', "item,site,quantity\nJAR-340R,DEPOT,901\nJAR-227R,DEPOT,902\n");
        $before = self::value('SELECT SUM(quantity) FROM stock_balance');
        file_put_contents(
            $run->path,
            "item,site,quantity\nJAR-340R,DEPOT,901\nJAR-227R,DEPOT,".str_repeat('9', 400)."\n",
        );
        self::assertTrue(self::get(Imports::class)->askToApply($run));
        $after = self::entities()->find(ImportRun::class, $run->id);
        self::assertNotNull($after);
        self::assertFalse(self::get(Imports::class)->askToApply($after), 'a second press starts nothing');
        self::assertSame(ImportRun::FAILED, $after->state());
        self::assertStringContainsString('Nothing was applied', $after->message());
        self::assertSame($before, self::value('SELECT SUM(quantity) FROM stock_balance'));
    }
}
