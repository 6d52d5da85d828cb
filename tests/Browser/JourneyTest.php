<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;

/** The main job in the real interface, with a keyboard: from a proposal to booked stock. */
final class JourneyTest extends BrowserTestCase
{
    public function testFromAProposalToBookedStock(): void
    {
        self::signIn('mara');
        self::chord(WebDriverKeys::ALT, 'g');
        self::keys('r');
        self::until('h1', 'Reorder');

        // Leave only Vetrasol chosen, then change one quantity: the strip and the why follow.
        for (
            $ticks = '#board header:not(#group-VETRASOL) input[name="all"]:checked';
            [] !== ($others = self::$chrome->findElements(WebDriverBy::cssSelector($ticks)));
        ) {
            $group = self::$chrome->executeScript('return arguments[0].closest("header").id', [$others[0]]);
            self::assertIsString($group);
            self::$chrome->executeScript('arguments[0].click()', [$others[0]]);
            self::one(sprintf('#%s[data-chosen="0"]', $group));
        }
        self::one('.title input[name="q"]')->sendKeys('Vetrasol');
        self::gone('#group-BRENMOOR');
        $field = self::one('#group-VETRASOL + table input.qty');
        $id = (string) $field->getAttribute('id');
        self::type($field, '1.5'.WebDriverKeys::TAB);
        self::until('#row-'.substr($id, 9), 'do not split a case');
        self::assertSame('1.5', self::one('#'.$id)->getAttribute('value'), 'what was typed stays');
        self::type(self::one('#'.$id), '16'.WebDriverKeys::ENTER);
        // Enter walked on; back on the row, the why is about the new quantity.
        self::one('#'.$id.'[value="16"]')->click();
        self::until('#why', 'Order 16 cases');
        self::assertCount(
            1,
            self::$chrome->findElements(WebDriverBy::cssSelector('tr.sel')),
            'one row is marked, the one the why is about',
        );
        $item = trim(explode('·', (string) self::one('#row-'.substr($id, 9).' .code')->getText())[0]);
        $site = trim(
            explode("\n", explode('·', (string) self::one('#row-'.substr($id, 9).' .code')->getText())[1])[0],
        );
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('input[name^="chosen"]:checked')) as $tick) {
            if (
                'group-VETRASOL' !==
                self::$chrome->executeScript('return arguments[0].closest("section").querySelector("header").id', [
                    $tick,
                ])
            ) {
                self::$chrome->executeScript('arguments[0].checked = false', [$tick]);
            }
        }
        self::doTheNextThing();

        // Sixteen cases are less than they take; the draft is begun all the same, and sent.
        self::confirm('short of their minimum');
        self::until('h1', 'PO-');
        $number = (string) self::one('h1')->getText();
        self::until('.strip', 'Send to Ilse Tamm');
        self::doTheNextThing();
        self::confirm('Send '.$number.' to Vetrasol Glassworks? It is €');
        self::until('.note.fine', 'is on its way to orders@vetrasol.example');
        self::untilOpened('/mailbox', 'section', 'Order '.$number);

        // It arrives: count it at the dock, one line short, and book it in.
        self::signIn('tam');
        $held = self::held($item, $site);
        self::open('/dock?order='.$number);
        self::one('input[name="note"]')->sendKeys('DN-77');
        self::$chrome->executeScript(
            'const s = document.querySelector("select[name=site]"); s.value = [...s.options].find((o) => o.text === '
            .'arguments[0]).value',
            [$site],
        );
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('input[name^="orders"]:checked')) as $tick) {
            if (
                $number !==
                self::$chrome->executeScript('return arguments[0].closest("tr").querySelector("label").textContent', [
                    $tick,
                ])
            ) {
                $tick->click();
            }
        }
        self::doTheNextThing();
        self::until('h1', 'delivery note DN-77');
        self::keys(...str_split($item.' 14'));
        self::keys(WebDriverKeys::ENTER);
        self::until('.note.fine', 'now 14 case');
        self::until('tbody', '2 short');
        self::doTheNextThing();
        self::confirm('Book 1 line from Vetrasol Glassworks into stock? That is €');
        self::until('.note.fine', 'Booked in as R-');
        self::assertSame($held + 14 * 12, self::held($item, $site), 'stock has moved');
        self::open('/orders/'.$number);
        self::until('.title', 'part received');

        /** @var list<array{level: string, message: string}> $log */
        $log = self::$chrome->manage()->getLog('browser');
        $errors = array_filter(
            $log,
            static fn (array $entry): bool => 'SEVERE' === $entry['level'] && !str_contains($entry['message'], '422'),
        );
        self::assertSame([], array_column($errors, 'message'), 'the browser has nothing to complain about');
    }

    public function testTheWhyIsReachedReadAndLeftByKey(): void
    {
        self::signIn('mara');
        self::open('/reorder');
        self::one('#board');
        self::keys(WebDriverKeys::ARROW_DOWN);
        $focus = static fn (string $of): mixed => self::$chrome->executeScript('return document.activeElement.'.$of);
        $said = static function (): string {
            $words = self::$chrome->executeScript('return document.querySelector("#said").textContent');

            return is_string($words) ? $words : '';
        };
        $first = $focus('id');
        self::assertIsString($first);
        self::assertStringStartsWith('quantity-', $first, 'arrows walk at once');
        self::one(sprintf('#why [data-of="row-%s"]', substr($first, 9)));
        self::keys(WebDriverKeys::ARROW_DOWN);
        self::$chrome->wait(8, 50)->until(
            static fn (): bool => str_contains($said(), 'Order '),
            'the why of the next row is said',
        );
        self::keys(WebDriverKeys::ARROW_UP);
        self::one(sprintf('#why [data-of="row-%s"]', substr($first, 9)));
        self::chord(WebDriverKeys::ALT, 'w');
        self::assertSame('why', $focus('id'));
        self::keys(WebDriverKeys::ESCAPE);
        self::assertSame($first, $focus('id'), 'back where one was');

        // A change keeps the focus in the list, and is said.
        self::chord(WebDriverKeys::CONTROL, 'a');
        self::keys('9');
        self::keys(WebDriverKeys::ENTER);
        self::until('#'.str_replace('quantity', 'row', $first), '');
        self::$chrome->wait(8, 50)->until(static fn (): bool => str_contains($said(), 'line'));
        $now = $focus('id');
        self::assertIsString($now);
        self::assertStringStartsWith('quantity-', $now);
        self::assertNotSame($first, $now);

        // A row is skipped by key, once the change has been answered; the next one has the focus.
        self::$chrome->wait(8, 50)->until(
            static fn (): bool => [] === self::$chrome->findElements(WebDriverBy::cssSelector('.htmx-request')),
        );
        self::chord(WebDriverKeys::ALT, 'x');
        self::$chrome->wait(8, 50)->until(
            static fn (): bool => [] === self::$chrome->findElements(WebDriverBy::id($now)),
            'the row is gone',
        );
        self::assertNotSame('BODY', $focus('tagName'));
    }

    public function testAKeyOfOnesOwnActsOnlyWhereItWasChosen(): void
    {
        self::signIn('iris');
        self::keys('g', 's');
        self::assertSame('/', parse_url(self::$chrome->getCurrentURL(), PHP_URL_PATH));
        self::open('/settings/keys');
        self::type(self::one('input[name="Go"]'), 'g'.WebDriverKeys::ENTER);
        self::until('.note.fine', 'Your keys are saved');
        self::one('h1')->click();
        self::keys('g', 's');
        self::until('h1', 'Stock');
    }

    public function testFromComparingToAnOrderFromTheCheapest(): void
    {
        self::signIn('mara');
        self::open('/compare/items/JAR-370H?units=576');
        self::until('article.lowest', 'Buy 576 here');
        self::type(self::one('#units'), '1152');
        self::until('article.lowest', 'Buy 1,152 here');
        self::doTheNextThing();
        self::until('.note', 'Hex jar 370 ml');
    }

    public function testARoundFromQuestionToAwardedSplitOrder(): void
    {
        self::signIn('mara');
        self::open('/compare/items/JAR-454R?units=960');
        foreach (
            self::$chrome->findElements(WebDriverBy::cssSelector('form[action="/compare/rounds"] button')) as $button
        ) {
            $button->click();
            break;
        }
        self::until('h1', 'Ask for quotes');
        self::doTheNextThing();
        self::until('.note', 'is out to 2 suppliers');
        $round = self::$chrome->getCurrentURL();
        $own = self::$chrome->findElements(WebDriverBy::cssSelector('.answers th a'));
        $links = array_map(static fn ($link): string => (string) $link->getAttribute('href'), $own);
        self::assertCount(2, $links);
        foreach ($links as $i => $link) {
            self::open($link);
            self::type(self::one('input[name^="price-"]'), 0 === $i ? '0.61' : '0.64');
            self::type(self::one('input[name="lead_days"]'), '9');
            self::doTheNextThing();
            self::until('.note', 'is in.');
        }
        self::$chrome->get($round);
        $give = self::$chrome->findElements(WebDriverBy::cssSelector('input[name^="give-"]'));
        self::assertCount(2, $give);
        self::type($give[0], '480');
        self::type($give[1], '480');
        self::doTheNextThing();
        self::confirm('Award Q-');
        self::until('.note', 'Awarded. Drafted: ');
    }

    public function testAPriceListIsLookedThroughAndApplied(): void
    {
        self::signIn('mara');
        $file = sys_get_temp_dir().'/tallbarrel-list-'.getmypid().'.csv';
        file_put_contents($file, "code,prices\nVG-0045-H,1=5.40 40=5.20 80=5.05\nVG-0720-H,99\nVG-0280-H,x\n");
        self::open('/suppliers/VETRASOL');
        self::one('a[href$="/prices"]')->click();
        self::one('input[type="file"]')->sendKeys($file);
        self::one('input[name="complete"]')->click();
        self::doTheNextThing();
        self::until('.title', '1 cannot be used');
        self::until('#lines', '0 of 1 ticked');
        self::one('#lines input[type="checkbox"]')->click();
        self::until('#strip', '2 lines ticked');
        self::one('#lines input[type="checkbox"]')->click();
        self::until('#strip', '1 line ticked');
        self::doTheNextThing();
        self::until('.note', '1 line is applied');
        self::open('/suppliers/VETRASOL');
        self::until('table', '5.40, 5.20 from 40, 5.05 from 80');
        unlink($file);
    }

    public function testNothingIsApprovedOrSentWithoutBeingMeant(): void
    {
        self::signIn('rowan');
        self::open('/orders/PO-1081');
        $waits = static fn () => self::until('.title', 'awaiting approval');
        self::one('.strip summary')->click();
        self::one('input[name="reason"]')->sendKeys('too dear');
        self::doTheNextThing();
        $waits();
        self::gone('#ask[open]');
        self::assertSame('too dear', self::one('input[name="reason"]')->getAttribute('value'));

        // The same press held, or pressed again and again, only opens the question.
        self::one('h1')->click();
        for ($press = 0; $press < 4; ++$press) {
            self::doTheNextThing();
        }
        self::until('#ask[open]', 'Approve PO-1081 to Tindavik Containers for €');
        $repeat = 'document.querySelector("#ask-yes").dispatchEvent(new KeyboardEvent("keydown", '
            .'{key: "Enter", repeat: true, bubbles: true, cancelable: true}))';
        self::assertFalse(self::$chrome->executeScript('return '.$repeat), 'a held key answers nothing');
        self::keys(WebDriverKeys::ESCAPE);
        self::gone('#ask[open]');
        $waits();

        // Not to be asked below an amount: the question knows it the next time.
        self::doTheNextThing();
        self::until('#ask[open]', 'don’t ask me again');
        self::one('#ask input[name="remember"]')->click();
        self::one('#ask-yes')->click();
        self::until('.note.fine', 'is approved');
        self::assertGreaterThan(
            0,
            self::$chrome->executeScript('return parseFloat(localStorage.getItem("ask-under-approve"))'),
        );
    }

    public function testFromAShortDeliveryToAPaidInvoice(): void
    {
        self::signIn('iris');
        self::chord(WebDriverKeys::ALT, 'g');
        self::keys('e');
        self::until('.list h2', 'To settle');
        self::one('.list a[href^="/settle/new/"]')->click();
        self::until('h1', 'Invoice of');
        self::type(self::one('input[name="number"]'), 'J-77');
        self::$chrome->executeScript('document.querySelector("input[name=day]").value = "2026-11-23"');
        $packs = self::one('input[name^="packs["]');
        $came = (int) $packs->getAttribute('value');
        self::type($packs, (string) ($came + 3));
        self::doTheNextThing();
        self::until('h1', 'invoice J-77');
        self::until('.work', '3 not received');
        $here = (string) parse_url(self::$chrome->getCurrentURL(), \PHP_URL_PATH);

        self::signIn('mara');
        self::open($here);
        self::until('.work button', 'Pay what came');
        self::one('input[name="quantity"][value="credit"] ~ button')->click();
        self::until('#ask[open]', 'for a credit note of');
        self::one('#ask-yes')->click();
        self::until('.note.fine', 'a letter asking for a credit note is on its way');

        self::signIn('iris');
        self::open($here);
        self::until('.strip button', 'Settle at');
        self::doTheNextThing();
        self::confirm('Settle J-77');
        self::until('.note.fine', 'waits to be paid');
        self::open('/settle/payments');
        self::one('input[aria-label^="Paid: J-77"]')->click();
        self::doTheNextThing();
        self::confirm('Note what is ticked as paid');
        self::until('.note.fine', 'Paid: J-77');
    }

    public function testAListLoadsOnAsItIsScrolled(): void
    {
        self::signIn('iris');
        self::open('/stock');
        $rows = static fn (): int => count(self::$chrome->findElements(WebDriverBy::cssSelector('main tbody tr')));
        $before = $rows();
        self::$chrome->executeScript('document.querySelector("main tbody tr:last-child").scrollIntoView()');
        self::$chrome->wait(8, 50)->until(static fn (): bool => $rows() > $before + 20, 'more rows');
    }

    /** What is listed and not shown yet comes as rows of its own group, with fields one can type in. */
    public function testTheRestOfReorderFollowsAsItIsScrolled(): void
    {
        self::signIn('mara');
        self::open('/reorder');
        $visible = static fn (): int => count(array_filter(
            self::$chrome->findElements(WebDriverBy::cssSelector('#board tr[data-row] input.qty')),
            static fn (WebDriverElement $field): bool => $field->isDisplayed(),
        ));
        $before = $visible();
        self::$chrome->executeScript('document.querySelector("#board tr.more").scrollIntoView()');
        self::$chrome->wait(8, 50)->until(static fn (): bool => $visible() > $before, 'more rows');
        // A group whose rows follow gets the rest of its heading with them: when they would be here.
        $late = self::$chrome->executeScript(
            'const late = [...document.querySelectorAll("[data-group]")].find((group) =>
                !group.querySelector("[data-row]") && group.querySelector("header a"));
             late.scrollIntoView();
             return late.querySelector("header").id;',
        );
        self::assertIsString($late);
        self::until('#'.$late, ', here ');
    }

    public function testABadScanIsListedAndLeavesTheFieldFree(): void
    {
        self::signIn('tam');
        self::open('/dock?order=PO-1077');
        self::one('input[name="note"]')->sendKeys('DN-78');
        self::doTheNextThing();
        self::until('h1', 'delivery note DN-78');
        self::one('#scan');
        self::keys(...str_split('XX99'));
        self::keys(WebDriverKeys::ENTER);
        self::until('#bad-scans', 'XX99');
        self::assertSame('', self::one('#scan')->getAttribute('value'));
        self::keys(...str_split('YY98'));
        self::keys(WebDriverKeys::ENTER);
        self::until('#bad-scans', 'YY98');
        self::until('#bad-scans', 'XX99');

        // Without a connection scans wait here, and are counted once when it is back; what was typed meanwhile stays.
        $first = (string) self::one('.grid-table input[name^="counted["]')->getAttribute('name');
        $code = trim(explode('·', self::one('.grid-table tbody .code')->getText())[0]);
        $second = self::$chrome->findElements(WebDriverBy::cssSelector('.grid-table input[name^="counted["]'))[1];
        self::offline(true);
        foreach ([1, 2] as $n) {
            self::one('#scan')->sendKeys($code.WebDriverKeys::ENTER);
            self::until('#waiting-scans', 1 === $n ? '1 scan waits' : '2 scans wait');
        }
        $second->sendKeys('3');
        $name = (string) $second->getAttribute('name');
        self::offline(false);
        self::$chrome->wait(15, 100)->until(
            static fn (): bool => '2' === self::$chrome->executeScript(
                'return document.querySelector("[name=\"'.$first.'\"]").value',
            ),
            'both are counted',
        );
        self::assertSame('3', self::one('[name="'.$name.'"]')->getAttribute('value'));
        self::assertFalse(self::one('#waiting-scans')->isDisplayed());

        // The count is given up, after a question, and leaves nothing behind.
        self::one('button[formaction$="/discard"]')->click();
        self::confirm('Give up this count?');
        self::gone('.expected[href*="/deliveries/"]');
    }

    public function testKeysFindThingsAndHelpIsThere(): void
    {
        self::signIn('iris');
        self::keys('/');
        self::keys(...str_split('varroa'));
        self::until('#found', 'MED-VS10');
        self::keys(WebDriverKeys::ESCAPE);
        self::one('h1')->click();
        self::keys('?');
        self::until('#key-help', 'Find anything');
        self::assertTrue(self::one('#key-help')->isDisplayed());
    }

    public function testTheWholeJobTakesFewKeys(): void
    {
        // Whatever an earlier journey unticked is chosen again.
        self::signIn('rowan');
        self::open('/reorder');
        foreach (['KESTRANE', 'MURREL'] as $group) {
            self::$chrome->executeScript(
                'const all = document.querySelector(arguments[0]); if (!all.checked) all.click()',
                [sprintf('#group-%s input[name="all"]', $group)],
            );
            self::one(sprintf('#group-%s:not([data-chosen="0"])', $group));
        }
        self::until('.strip .btn.go', 'Draft');
        self::$chrome->manage()->deleteAllCookies();
        self::open('/sign-in');
        $pressed = 0;
        $press = static function (string ...$keys) use (&$pressed): void {
            foreach ($keys as $key) {
                ++$pressed;
                self::keys($key);
            }
        };
        $with = static function (string $held, string $key) use (&$pressed): void {
            ++$pressed;
            self::chord($held, $key);
        };
        $next = static function () use (&$pressed): void {
            ++$pressed;
            self::doTheNextThing();
        };
        $press(...str_split('rowan@larkmoor.example'));
        $press(WebDriverKeys::TAB, ...str_split('larkmoor-honey'));
        $press(WebDriverKeys::ENTER);
        self::until('h1', 'Monday 23 November');
        $with(WebDriverKeys::ALT, 'g');
        $press('r');
        self::until('h1', 'Reorder');
        $next();
        // An order below a minimum asks first, which takes one key more.
        self::$chrome->wait(8, 50)->until(static function (): bool {
            return [] !== self::$chrome->findElements(WebDriverBy::cssSelector('#ask[open], #drafts'));
        });
        if ([] !== self::$chrome->findElements(WebDriverBy::cssSelector('#ask[open]'))) {
            $press(WebDriverKeys::ENTER);
        }
        self::until('h1', 'Look through and send');
        $next();
        self::until('#ask[open]', 'Send what is ticked?');
        $press(WebDriverKeys::ENTER);
        self::until('.note.fine', 'On the way: PO-');
        $with(WebDriverKeys::ALT, 'g');
        $press('d');
        self::until('h2', 'Expected');
        $press(WebDriverKeys::ARROW_DOWN, WebDriverKeys::ENTER);
        self::until('.strip', 'Start counting');
        $press('7');
        $next();
        self::one('#scan');
        $with(WebDriverKeys::SHIFT, WebDriverKeys::TAB);
        $press(WebDriverKeys::ENTER);
        self::until('.strip', 'Book in');
        $next();
        self::until('#ask[open]', 'into stock?');
        $press(WebDriverKeys::ENTER);
        self::until('.note.fine', 'Booked in as R-');
        self::assertLessThanOrEqual(60, $pressed);
    }

    public function testFiveLinesByHandWithoutAClick(): void
    {
        self::signIn('rowan');
        $pressed = 0;
        $press = static function (string ...$keys) use (&$pressed): void {
            foreach ($keys as $key) {
                ++$pressed;
                self::keys($key);
            }
        };
        ++$pressed;
        self::chord(WebDriverKeys::ALT, 'n');
        self::until('h1', 'New order');
        $press(...str_split('vet'), ...[WebDriverKeys::ENTER]);
        self::until('.title p', 'Vetrasol Glassworks');
        foreach (['43g', '48b', '53b', '58g', '63g'] as $i => $part) {
            self::one('input[name="add"]:focus');
            $press(...str_split($part), ...[WebDriverKeys::ENTER]);
            self::one('input[name="add_quantity"]:focus');
            $press(WebDriverKeys::ENTER);
            self::until('.strip', 0 === $i ? '1 line' : ' line');
            self::$chrome->wait(8, 50)->until(static function () use ($i): bool {
                $rows = self::$chrome->findElements(WebDriverBy::cssSelector('#order input[name^="quantity["]'));

                return $i < count($rows) || 0 === $i;
            });
        }
        self::until('.strip', 'lines');
        ++$pressed;
        self::doTheNextThing();
        self::until('#ask[open]', 'to Vetrasol Glassworks?');
        $press(WebDriverKeys::ENTER);
        self::until('.note.fine', 'is on its way to');
        self::assertLessThanOrEqual(40, $pressed);
        self::assertGreaterThanOrEqual(5, count(
            self::$chrome->findElements(WebDriverBy::cssSelector('#order tbody .nm')),
        ));
    }

    public function testARevisionIsConfirmedOnTheSuppliersPageAndTheOrderIsCancelled(): void
    {
        self::signIn('rowan');
        self::open('/orders/PO-1079');
        self::one('form[action$="/revision/begin"] button')->click();
        self::until('h1', 'revision 2');
        self::type(self::one('input[name="quantity[0]"]'), '24');
        self::one('main')->click();
        self::doTheNextThing();
        self::confirm('Send revision 2 of PO-1079 to Ostrel Wax?');
        self::until('.note.fine', 'Revision 2 is on its way');
        self::until('main', 'quantity');
        $path = (string) self::one('a[href^="/order/"]')->getAttribute('href');
        self::$chrome->manage()->deleteAllCookies();
        self::open((string) parse_url($path, \PHP_URL_PATH));
        self::until('h2', 'What is different since revision 1');
        self::one('button[value="all"]')->click();
        self::until('.note.fine', 'Thank you, it is confirmed.');

        self::signIn('rowan');
        self::open('/orders/PO-1079');
        self::until('.title', 'acknowledged');
        self::one('.title .menu summary')->click();
        self::type(self::one('input[name="reason"]'), 'It never came.');
        self::one('button[formaction$="/cancel"]')->click();
        self::confirm('Cancel PO-1079');
        self::until('.note.fine', 'PO-1079 is cancelled.');
        self::until('main', 'Cancelled: It never came.; they were written to');
    }

    public function testAWishFromTheStockroomBecomesALineAndAColleagueIsAsked(): void
    {
        self::signIn('tam');
        self::open('/requisitions');
        self::one('input[name="words"]:focus');
        self::keys(...str_split('hex 370'));
        self::until('#items-meant [role="option"]', 'JAR-370H');
        self::keys(WebDriverKeys::ENTER);
        self::one('input[name="quantity"]:focus');
        self::keys('3', '0');
        self::doTheNextThing();
        self::until('.note.fine', 'A buyer sees that you ask for');

        self::signIn('mara');
        self::open('/requisitions');
        self::one('button[formaction$="/order"]')->sendKeys(WebDriverKeys::ENTER);
        self::until('.note.fine', 'It stands on PO-');
        self::one('#order input[name^="to_us"][value="for Tam"]');
        $number = (string) self::one('h1')->getText();
        self::one('#talk textarea')->sendKeys('Is one case enough?');
        self::one('#talk select')->sendKeys('Tam');
        self::one('#talk form:last-of-type button')->sendKeys(WebDriverKeys::ENTER);
        self::until('#talk', 'waits for Tam');

        self::signIn('tam');
        self::until('.wait', $number.': “Is one case enough?”');
        self::open('/requisitions');
        self::until('table', $number);
    }

    private static function held(string $item, string $site): int
    {
        self::open('/items/'.$item);
        foreach (self::$chrome->findElements(WebDriverBy::cssSelector('main .grid-cols-3 > a')) as $place) {
            if (str_starts_with((string) $place->getText(), $site)) {
                self::assertSame(1, preg_match('/\n([\d,]+) pcs/', (string) $place->getText(), $found));

                return (int) str_replace(',', '', $found[1]);
            }
        }
        self::fail($item.' is not stocked at '.$site);
    }
}
