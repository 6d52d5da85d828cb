<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;

/** The dock and the stock room on a phone. */
final class DockJourneyTest extends BrowserTestCase
{
    private const YEAST = '(01)09520000055134(17)280131(10)';

    protected function setUp(): void
    {
        self::resize(390, 844);
    }

    protected function tearDown(): void
    {
        self::resize(1280, 800);
    }

    private static function scan(string $what): void
    {
        self::one('#scan')->sendKeys($what.WebDriverKeys::ENTER);
    }

    /** The row of an item that is counted. */
    private static function row(string $code): WebDriverElement
    {
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('#count tbody tr')) as $row) {
            if (str_contains($row->getText(), $code)) {
                return $row;
            }
        }
        self::fail('no row of '.$code);
    }

    private static function in(WebDriverElement $row, string $name): WebDriverElement
    {
        return $row->findElement(WebDriverBy::cssSelector('[name^="'.$name.'["]'));
    }

    private static function press(string $selector): void
    {
        self::$chrome->executeScript('document.querySelector(arguments[0]).click()', [$selector]);
    }

    public function testADeliveryWithAShortADamagedAnUnknownAndTwoLotsUpToTheShelf(): void
    {
        self::signIn('tam');
        self::open('/dock?order=PO-1078');
        self::one('input[name="note"]')->sendKeys('DN-390');
        self::one('select[name="site"] option[value="1"]')->click();
        self::press('button[form="begin"]');
        self::until('h1', 'delivery note DN-390');
        self::assertGreaterThanOrEqual(8, count(self::$chrome->findElements(
            WebDriverBy::cssSelector('#count tbody tr'),
        )));

        // Two lots by scan; the second gets a row of its own.
        foreach (['Y-71' => 'lot Y-71', 'Y-72' => 'lot Y-72'] as $lot => $said) {
            self::scan(self::YEAST.$lot);
            self::until('.note.fine', $said);
        }
        // Fewer of one, and of another some are broken.
        $short = self::in(self::row('MEAD-NUT'), 'counted');
        $short->clear();
        $short->sendKeys('5');
        $damaged = self::in(self::row('MEAD-CRK'), 'counted');
        $damaged->clear();
        $damaged->sendKeys('37');
        self::press('button[form="count"][value="save"]');
        self::until('#count tbody', '1 short');
        self::$chrome->executeScript('arguments[0].open = true; arguments[0].scrollIntoView({ block: "center" })', [
            self::row('MEAD-CRK')->findElement(WebDriverBy::cssSelector('details.own-day')),
        ]);
        self::in(self::row('MEAD-CRK'), 'bad')->sendKeys('2');
        self::in(self::row('MEAD-CRK'), 'because')->sendKeys('cracked');
        self::press('button[name="do"][value="all"]');
        self::until('#count tbody', 'as ordered');

        // What is on none of the orders is noted from here.
        $unknown = (string) self::one('a[href*="/dock/unknown?"]')->getAttribute('href');
        self::open($unknown);
        self::one('input[name="what"]')->sendKeys('A crate of corks nobody ordered');
        self::assertSame('DN-390', self::one('input[name="note"]')->getAttribute('value'));
        self::press('button[form="noting"]');
        self::until('.note.fine', 'Noted.');
        self::$chrome->navigate()->back();
        self::$chrome->navigate()->back();
        self::until('h1', 'delivery note DN-390');
        self::press('.strip button[value="book"]');
        self::confirm('into stock?');
        self::until('.note.fine', 'Booked in as R-');
        self::until('.advice', '2 held back: cracked');

        // A sample is looked at, and what waited at the dock is put away: the goods, then Enter for their bin.
        self::open('/dock/set-apart');
        self::until('main', 'Look at');
        self::press('button[value="inspect"]');
        self::until('.note.fine', 'looked at bad, taken');
        self::open('/dock/put-away');
        self::scan('BKT-30');
        self::until('.scan', 'is proposed');
        self::scan('');
        self::until('.note.fine', 'of BKT-30:');
        self::until('main', 'Nothing stands at the dock.');
    }

    public function testAReturnATransferAndAReversal(): void
    {
        self::signIn('rowan');
        self::open('/dock/receipts?words=DN-390');
        self::one('main tbody a[href*="/dock/deliveries/"], main tbody a.num')->click();
        self::until('h2', 'What it did');
        $delivery = (string) self::$chrome->getCurrentURL();

        // The cracked ones go back.
        self::open((string) self::one('a[href*="/dock/returns/new/"]')->getAttribute('href'));
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('#back tbody tr')) as $row) {
            if (str_contains($row->getText(), 'MEAD-CRK') && str_contains($row->getText(), '2')) {
                $field = $row->findElement(WebDriverBy::cssSelector('input.qty'));
            }
        }
        self::assertInstanceOf(WebDriverElement::class, $field ?? null);
        $field->sendKeys('2');
        self::one('select[name="reason"] option:nth-child(2)')->click();
        self::one('select[name="from"] option[value="held"]')->click();
        self::press('button[form="back"]');
        self::until('.note.fine', 'is begun');
        self::press('.strip button[value="send"]');
        self::confirm('Has B-');
        self::until('.tag', 'sent back');

        // What another site sent is counted: one is missing and lost.
        self::open('/dock/transfers/T-1002');
        $came = self::one('input[name^="came["]');
        $came->clear();
        $came->sendKeys('23');
        self::one('select[name^="rest["] option[value="lost"]')->click();
        self::press('.strip button[value="receive"]');
        self::until('.note.fine', 'is booked in at Ferry Lane');
        self::until('main', '1 fewer than left');

        // One line of the receipt was a slip.
        self::$chrome->get($delivery);
        self::$chrome->executeScript(
            'document.querySelector("form[action$=\'/take-back\']").closest("details").open = true',
        );
        $ticks = self::$chrome->findElements(WebDriverBy::cssSelector('input[name^="back["]'));
        self::assertGreaterThan(5, count($ticks));
        foreach (array_slice($ticks, 1) as $tick) {
            self::$chrome->executeScript('arguments[0].click()', [$tick]);
        }
        self::one('input[name="why"]')->sendKeys('counted twice');
        self::press('form[action$="/take-back"] button');
        self::until('.note.fine', 'Taken back as R-');
        self::until('main', 'taken back, R-');
    }
}
