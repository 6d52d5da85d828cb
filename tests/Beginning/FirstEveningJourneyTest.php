<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Beginning;

use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;
use TallBarrel\Tests\Browser\BrowserTestCase;

/** From an empty database to a first order that was sent and received; run when the demo was taken away. */
final class FirstEveningJourneyTest extends BrowserTestCase
{
    /** @param array<string, string> $fields */
    private static function fill(array $fields): void
    {
        foreach ($fields as $name => $value) {
            self::type(self::one('[name="'.$name.'"]'), $value);
        }
    }

    private static function choose(string $selector, string $value): void
    {
        (new WebDriverSelect(self::one($selector)))->selectByValue($value);
    }

    public function testABusinessOfOnesOwnFromNothingToReceivedGoods(): void
    {
        self::open('/reorder');
        self::until('h1', 'A business of your own');
        self::fill(['name' => 'Whin Hill Crafts']);
        self::choose('[name="country"]', 'DE');
        self::choose('[name="mark"]', ',');
        self::fill([
            'site' => 'Werkstatt',
            'owner' => 'Anna Lang',
            'email' => 'anna@whinhill.example',
            'password' => 'seven green kettles',
        ]);
        self::keys(WebDriverKeys::ENTER);
        self::until('.note.fine', 'Whin Hill Crafts is open');
        self::until('h1', 'What is still missing');
        self::gone('.demo');

        // A file with foreign headings, letters and numbers; one heading is told what it means.
        $file = sys_get_temp_dir().'/artikel-'.getmypid().'.csv';
        file_put_contents($file, mb_convert_encoding(
            "Artikel-Nr.;Bezeichnung;Mengeneinheit;VK-Preis;Regal;Lager\r\nW/1;Bienenwachs, "
                ."gelb;KGM;18,50;oben;WERKSTATT\r\n"
            ."D-2;Dochte, groß;EA;0,35;unten;WERKSTATT\r\nD-3;Dochte, fein;EA;gratis;unten;WERKSTATT\r\n",
            'Windows-1252',
            'UTF-8',
        ));
        self::open('/own-data');
        self::one('#items input[type="file"]')->sendKeys($file);
        self::one('#items form button')->click();
        self::until('.title', '1 cannot be used');
        self::until('.grid-table', 'VK-Preis');
        self::choose('[aria-label="What Regal means"]', 'notes');
        self::type(self::one('[aria-label="Row 4, sales_price"]'), '0,40');
        self::one('#reading button')->click();
        self::until('.title', 'all good');
        self::one('.strip .btn.go')->click();
        self::until('.note.fine', '3 rows are in');
        unlink($file);
        self::open('/items/W/1');
        self::until('h1', 'Bienenwachs, gelb');
        self::until('.work', 'oben');

        self::open('/suppliers');
        self::fill(['code' => 'IMKER', 'name' => 'Imkerei Feldweg', 'currency' => 'EUR'.WebDriverKeys::ENTER]);
        self::until('.tag', 'before ordering');
        self::fill([
            'contact' => 'Jan Feld',
            'email' => 'jan@feldweg.example',
            'street' => 'Feldweg 1',
            'postcode' => '01099',
            'city' => 'Dorf',
            'country' => 'DE',
            'net_days' => '14',
            'delivery_terms' => 'DAP Werkstatt',
        ]);
        self::doTheNextThing();
        self::until('.note.fine', 'Imkerei Feldweg is saved');
        self::until('.tag', 'ready to order');
        self::open('/suppliers/IMKER/offers/new');
        self::fill([
            'item' => 'W/1',
            'pack' => 'block',
            'supplier_code' => 'WX5',
            'content' => '2,5',
            'lead_days' => '3',
        ]);
        self::fill(['prices[left0]' => '1', 'prices[right0]' => '22,75']);
        self::doTheNextThing();
        self::until('.note.fine', 'can be bought from Imkerei Feldweg');

        self::chord(WebDriverKeys::ALT, 'n');
        self::until('h1', 'New order');
        self::keys('imker', WebDriverKeys::ENTER);
        self::until('.title p', 'Imkerei Feldweg');
        self::one('input[name="add"]:focus');
        self::keys('wachs', WebDriverKeys::ENTER);
        self::one('input[name="add_quantity"]:focus');
        self::keys('4', WebDriverKeys::ENTER);
        self::until('.strip', '1 line');
        self::doTheNextThing();
        self::until('#ask[open]', 'to Imkerei Feldweg? It is €91,00 with tax');
        self::keys(WebDriverKeys::ENTER);
        self::until('.note.fine', 'is on its way to');

        self::open('/dock');
        self::until('h2', 'Expected');
        self::keys(WebDriverKeys::ARROW_DOWN, WebDriverKeys::ENTER);
        self::until('.strip', 'Start counting');
        self::keys('LS 7');
        self::doTheNextThing();
        self::one('#scan');
        self::chord(WebDriverKeys::SHIFT, WebDriverKeys::TAB);
        self::keys(WebDriverKeys::ENTER);
        self::until('.strip', 'Book in');
        self::doTheNextThing();
        self::confirm('into stock?');
        self::until('.note.fine', 'Booked in as R-');
        self::untilOpened('/items/W/1', '.work', '10 kg');
        self::until('.work', 'average cost €9,10');
    }
}
