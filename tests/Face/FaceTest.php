<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Face;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Tests\Browser\BrowserTestCase;

/**
 * Every page at a desk, on a phone, and on the narrowest (a desk at 400 %): nothing scrolls sideways, is cut off, lies
 * on
 * something else or under the strip; no rule of WCAG 2.2 AA or good practice that axe knows is broken.
 */
final class FaceTest extends BrowserTestCase
{
    /** @var array<string, string>|null addresses of what is made for these tests */
    private static ?array $made = null;

    public function testEveryPageIsLookedAt(): void
    {
        $routes = [];
        foreach (glob(dirname(__DIR__, 2).'/src/Desk/*/*Controller.php') ?: [] as $file) {
            preg_match_all(
                "/#\\[Route\\([^#]*?name: '(\\w+)'[^#]*?methods: \\['GET'\\]/",
                (string) file_get_contents($file),
                $found,
            );
            array_push($routes, ...$found[1]);
        }
        self::assertGreaterThan(40, count($routes));
        self::assertSame(
            [],
            array_values(array_diff($routes, array_keys(Pages::ALL), Pages::NO_PAGES)),
            'in Pages, or said there to be no page',
        );
    }

    /** @return iterable<string, array{int, int, bool}> width, height, whether in the dark */
    public static function sizes(): iterable
    {
        yield 'at a desk' => [1280, 800, false];
        yield 'at a desk in the dark' => [1280, 800, true];
        yield 'on a phone' => [390, 844, false];
        yield 'at 400 %' => [320, 640, false];
    }

    #[DataProvider('sizes')]
    public function testNothingIsWrongWithAnyPage(int $width, int $height, bool $dark): void
    {
        self::resize(1280, 800);
        self::signIn('rowan');
        $made = self::$made ??= $this->make();
        self::resize($width, $height);
        (new ChromeDevToolsDriver(self::$chrome))->execute('Emulation.setEmulatedMedia', [
            'features' => [['name' => 'prefers-color-scheme', 'value' => $dark ? 'dark' : 'light']],
        ]);
        $axe = (string) file_get_contents(dirname(__DIR__, 2).'/node_modules/axe-core/axe.min.js');
        $inspection = (string) file_get_contents(__DIR__.'/inspection.js');
        $wrong = [];
        foreach (array_merge(...array_values(Pages::ALL)) as $page) {
            self::open(strtr($page, $made));
            self::assertStringNotContainsString('Not here', self::one('h1')->getText(), $page);
            self::$chrome->executeScript($axe);
            /** @var array<string, list<string>> $found */
            $found = self::$chrome->executeAsyncScript($inspection);
            foreach ($found as $kind => $list) {
                foreach (array_slice($list, 0, 4) as $one) {
                    $wrong[] = sprintf('%s %s: %s', $page, $kind, preg_replace('/\s+/', ' ', $one));
                }
            }
        }
        self::assertSame([], $wrong);
    }

    /** @return iterable<string, array{string, string}> page, and what opens or spoils something on it */
    public static function states(): iterable
    {
        yield 'the list of keys' => ['/', 'document.querySelector("#key-help").showModal()'];
        yield 'a question' => ['/orders/drafts', 'document.querySelector(".strip .btn.go").click()'];
        yield 'whose site' => ['/stock', 'document.querySelector(".tools details.menu").open = true'];
        yield 'what to start from' => ['/reorder', 'document.querySelector(".title details.menu").open = true'];
        yield 'a word explained' => ['/policies', 'document.querySelector("main details.what").open = true'];
        yield 'a mistake' => [
            '/suppliers/VETRASOL',
            'document.querySelector("[name=email]").value = "nobody"; document.querySelector("#supplier").submit()',
        ];
        yield 'the stock to come' => [
            '/items/JAR-340R',
            'document.querySelectorAll("main details > summary").forEach((one) => one.click())',
        ];
    }

    #[DataProvider('states')]
    public function testNothingIsWrongWithWhatOpens(string $page, string $open): void
    {
        $axe = (string) file_get_contents(dirname(__DIR__, 2).'/node_modules/axe-core/axe.min.js');
        self::signIn('rowan');
        foreach ([[1280, 800], [390, 844]] as [$width, $height]) {
            self::resize($width, $height);
            self::open($page);
            self::one('h1');
            self::$chrome->executeScript($open);
            self::one('h1');
            self::$chrome->wait(8, 100)->until(
                static fn (): bool => true === self::$chrome->executeScript(
                    'return document.readyState === "complete"',
                ),
            );
            self::$chrome->executeScript($axe);
            $found = self::$chrome->executeAsyncScript(
                'const done = arguments[0]; axe.run(document, {runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", '
                .'"wcag22aa", "best-practice"]}).then((r) => done(r.violations.map((v) => v.id + ": " '
                .'+ v.nodes.slice(0, 3).map((n) => n.html.slice(0, 120)).join(" | "))))',
            );
            self::assertSame([], $found, $page.' at '.$width);
        }
        self::resize(1280, 800);
    }

    /** @return array<string, string> a count begun, a quote and its supplier's own page, a file brought */
    private function make(): array
    {
        self::open('/dock?order=PO-1074');
        self::one('input[name="note"]')->sendKeys('DN-FACE');
        self::one('.strip .btn.go')->click();
        self::until('h1', 'delivery note DN-FACE');
        $delivery = (string) parse_url(self::$chrome->getCurrentURL(), PHP_URL_PATH);
        self::open('/compare/items/JAR-454R?units=960');
        self::one('form[action="/compare/rounds"] button')->click();
        self::until('h1', 'Ask for quotes');
        self::one('.strip .btn.go')->click();
        self::until('.note', 'is out to 2 suppliers');
        $quote = (string) self::one('.answers th a')->getAttribute('href');
        $own = $this->linkInTheLastLetter('/quote/');
        self::open('/suppliers/VETRASOL');
        $offer = (string) self::one('main a[href*="/offers/"]:not([href$="/new"])')->getAttribute('href');
        $file = sys_get_temp_dir().'/tallbarrel-face-'.getmypid().'.csv';
        file_put_contents($file, "code,name,category,unit\nJAR-340R,Round jar,Jars,pcs\n,nameless,Jars,pcs\n");
        self::open('/own-data');
        self::one('#items input[type="file"]')->sendKeys($file);
        self::one('#items form button')->click();
        self::until('.strip', 'right below');
        $run = (string) parse_url(self::$chrome->getCurrentURL(), PHP_URL_PATH);
        unlink($file);
        self::open('/orders/PO-1078');
        $ours = (string) self::one('a[href^="/order/"]')->getAttribute('href');
        self::one('form[action$="/revision/begin"] button')->click();
        self::until('h1', 'revision 2');
        $amendment = (string) self::$chrome->getCurrentURL();

        return array_combine(
            ['{delivery}', '{supplier_quote}', '{quote}', '{offer}', '{run}', '{supplier_order}', '{amendment}'],
            array_map(
                static fn (string $url): string => (string) parse_url($url, PHP_URL_PATH),
                [$delivery, $own, $quote, $offer, $run, $ours, $amendment],
            ),
        );
    }

    private function linkInTheLastLetter(string $path): string
    {
        self::$chrome->wait(15, 100)->until(static function () use ($path, &$link): bool {
            self::open('/mailbox');
            $link = 1 === preg_match(
                '#'.$path.'[\\w-]+#',
                (string) self::one('main')->getText(),
                $found,
            ) ? $found[0] : '';

            return '' !== $link;
        }, 'a letter with a link to '.$path);

        return (string) $link;
    }
}
