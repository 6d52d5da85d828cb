<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** What goods truly cost and what is owed, by the keyboard where it goes. */
final class SettleJourneyTest extends BrowserTestCase
{
    public function testAFreightBillThatComesWeeksLaterIsSpreadOverWhatCame(): void
    {
        self::signIn('iris');
        self::open('/settle/charges/new?receipt=R-1150');
        self::type(self::one('input[name="amount"]'), '25');
        self::doTheNextThing();
        self::until('th', 'Cost of one, then');
        self::doTheNextThing();
        self::until('.note.fine', 'is spread over what came');
        self::open('/settle/history/receipt/R-1150');
        self::until('h1', 'Receipt R-1150');
    }

    public function testADisputedPriceUpToTheCreditNote(): void
    {
        self::signIn('mara');
        self::open('/settle');
        $dear = self::$chrome->executeAsyncScript(<<<'JS'
            const done = arguments[0];
            (async () => {
                for (const card of document.querySelectorAll('.list a.expected')) {
                    const page = await (await fetch(card.href)).text();
                    const isDear = page.includes('over the price agreed') && page.includes('value="accepted"');
                    if (isDear) return done(card.href);
                }
                done('');
            })();
            JS);
        self::assertIsString($dear);
        self::assertNotSame('', $dear, 'an invoice is too dear');
        self::$chrome->get($dear);
        self::until('.work button', 'Accept');
        $number = explode(' ', self::one('h1')->getText());
        self::one('input[name="price"][value="credit"] ~ button')->click();
        self::confirm('for a credit note of');
        self::until('.note.fine', 'a letter asking for a credit note is on its way');

        self::signIn('iris');
        self::open('/settle/credits');
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('tbody tr')) as $row) {
            if (str_contains($row->getText(), 'invoice '.end($number))) {
                $row->findElement(WebDriverBy::cssSelector('a.btn'))->click();
                break;
            }
        }
        self::until('h1', 'Credit note of');
        self::type(self::one('input[name="number"]'), 'CN-J');
        self::$chrome->executeScript('document.querySelector("input[name=day]").value = "2026-11-23"');
        self::doTheNextThing();
        self::until('.note.fine', 'CN-J is entered; what it is for was never paid');
        self::$chrome->get($dear);
        self::until('.strip button', 'Settle at');
        self::doTheNextThing();
        self::confirm('Settle '.end($number));
        self::until('.note.fine', 'waits to be paid');
    }

    public function testWhatIsTickedGoesIntoAFileForTheBankAndComesBackOnAStatement(): void
    {
        self::signIn('iris');
        self::open('/settle/payments');
        self::one('#payments input[type="checkbox"]:not([disabled])')->click();
        $file = self::$chrome->executeAsyncScript(<<<'JS'
            const done = arguments[0];
            fetch('/settle/payments/bank', { method: 'POST', body: new FormData(document.getElementById('payments')) })
                .then((answer) => answer.text()).then(done);
            JS);
        self::assertIsString($file);
        $paid = simplexml_load_string($file);
        self::assertNotFalse($paid, $file);
        $paid->registerXPathNamespace('p', 'urn:iso:std:iso:20022:tech:xsd:pain.001.001.09');
        $of = static fn (string $name): string => (string) ($paid->xpath('//p:'.$name)[0] ?? self::fail($name));
        $currency = (string) ($paid->xpath('//p:InstdAmt/@Ccy')[0] ?? '');
        $statement = sys_get_temp_dir().'/tallbarrel-statement-'.getmypid().'.xml';
        file_put_contents($statement, strtr(
            (string) file_get_contents(dirname(__DIR__).'/Reference/statement.xml'),
            [
                'DE89370400440532013000' => $of('DbtrAcct/p:Id/p:IBAN'), '{reference}' => $of('EndToEndId'),
                '300.00' => $of('InstdAmt'), '"EUR"' => '"'.$currency.'"', 'BANK-1' => 'BANK-J',
                '2026-11-21' => $of('ReqdExctnDt/p:Dt'),
            ],
        ));
        self::open('/settle/statement');
        self::one('input[name="file"]')->sendKeys($statement);
        self::doTheNextThing();
        self::until('tbody', 'by our reference');
        self::doTheNextThing();
        self::until('.note.fine', 'Noted as paid: 1');
        self::open('/settle/statement');
        self::one('input[name="file"]')->sendKeys($statement);
        self::doTheNextThing();
        self::until('tbody', 'noted already, for');
        unlink($statement);
    }
}
