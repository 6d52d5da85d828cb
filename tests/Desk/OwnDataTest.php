<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

final class OwnDataTest extends DeskTestCase
{
    public function testAFileIsShownBeforeItIsAppliedAndAppliedAfterTheAnswer(): void
    {
        $this->as('mara');
        $this->bringOwnData(
            'sales',
            "item,site,day,quantity\nJAR-340R,MILL,2022-02-01,31\nJAR-340R,MILL,2022-02-02,x\n",
        );
        $this->browser->followRedirect();
        self::assertStringContainsString('1 cannot be used', $this->text());
        self::assertStringContainsString('not a number', $this->text());
        self::assertSame(0.0, $this->number("SELECT COUNT(*) FROM sales_day WHERE day = '2022-02-01'"));
        $address = (string) parse_url($this->browser->getRequest()->getUri(), \PHP_URL_PATH);
        $this->post($address);
        self::assertSame(31.0, $this->number("SELECT quantity FROM sales_day WHERE day = '2022-02-01'"));
        $this->see($address);
        self::assertStringContainsString('1 rows are in', $this->text());
    }

    public function testAFileThatIsNotCsvIsRefusedBesideItsField(): void
    {
        $this->as('mara');
        $this->bringOwnData('items', "PK\x03\x04 a spreadsheet");
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString(
            'neither a CSV file nor a workbook',
            $this->browser->getCrawler()->filter('#items .error')->text(),
        );
    }

    public function testNoFileIsSaid(): void
    {
        $this->as('mara');
        $this->post('/own-data/offers');
        self::assertStringContainsString(
            'Choose a file first',
            $this->browser->getCrawler()->filter('#offers .error')->text(),
        );
    }

    public function testASampleCanBeTakenAway(): void
    {
        $this->as('mara');
        $this->see('/own-data/offers/sample.csv');
        self::assertStringStartsWith(
            'supplier,item,supplier_code',
            (string) $this->browser->getResponse()->getContent(),
        );
    }

    public function testASuppliersWrongEntriesAreNamedAndKept(): void
    {
        $this->as('mara');
        /** @var array<string, mixed> $form */
        $form = $this->see('/suppliers/VETRASOL')->filter('#supplier')->form()->getPhpValues();
        $this->post(
            '/suppliers/VETRASOL',
            ['email' => 'orders(at)vetrasol', 'cut_off' => '2 pm', 'discount_days' => '40', 'country' => 'Czechia'] +
                array_diff_key($form, ['_token' => 1]),
        );
        self::assertResponseStatusCodeSame(422);
        foreach (
            [
                '“orders(at)vetrasol” is not an email address',
                '“2 pm” is not an hour',
                'The discount ends after 40 days',
                '“Czechia” is not a country code',
            ] as $reason
        ) {
            self::assertStringContainsString($reason, $this->text());
        }
        self::assertSame(
            'orders(at)vetrasol',
            $this->browser->getCrawler()->filter('input[name="email"]')->attr('value'),
        );
        self::assertSame(
            '14:00',
            $this->connection()->fetchOne("SELECT cut_off FROM supplier WHERE code = 'VETRASOL'"),
        );
    }
}
