<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\WebDriverException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverExpectedCondition;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;

/** The real interface in Chromium, driven by keys and clicks. */
abstract class BrowserTestCase extends TestCase
{
    protected static RemoteWebDriver $chrome;
    /** @var resource */
    private static mixed $driver;
    private static string $profile;

    public static function setUpBeforeClass(): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($server);
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($server, false), ':'), 1);
        fclose($server);
        $driver = proc_open(
            ['chromedriver', '--port='.$port],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
        self::assertIsResource($driver);
        self::$driver = $driver;
        for ($try = 0; $try < 100 && false === @fsockopen('127.0.0.1', $port); ++$try) {
            usleep(50_000);
        }
        self::$profile = sys_get_temp_dir().'/tallbarrel-browser-'.getmypid();
        $options = (new ChromeOptions())->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
            '--window-size=1280,800',
            '--user-data-dir='.self::$profile,
        ]);
        $wanted = DesiredCapabilities::chrome();
        $wanted->setCapability(ChromeOptions::CAPABILITY, $options);
        $wanted->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        self::$chrome = RemoteWebDriver::create('http://127.0.0.1:'.$port, $wanted);
    }

    public static function tearDownAfterClass(): void
    {
        self::$chrome->quit();
        proc_terminate(self::$driver);
        exec('rm -rf '.escapeshellarg(self::$profile));
    }

    protected static function open(string $path): void
    {
        self::$chrome->get(getenv('TALLBARREL_TEST_URL').$path);
    }

    /** What was on the screen when something went wrong stays under var/ for a look. */
    protected function onNotSuccessfulTest(\Throwable $error): never
    {
        self::offline(false);
        @self::$chrome->takeScreenshot(dirname(__DIR__, 2).'/var/test/log/'.date('His').'.png');
        parent::onNotSuccessfulTest($error);
    }

    protected static function one(string $selector): WebDriverElement
    {
        $element = self::$chrome
            ->wait(8, 50)
            ->until(
                WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector($selector)),
                $selector,
            );
        self::assertInstanceOf(WebDriverElement::class, $element);

        return $element;
    }

    protected static function until(string $selector, string $words): void
    {
        self::$chrome->wait(8, 50)->until(static function () use ($selector, $words): bool {
            try {
                return true ===
                    self::$chrome->executeScript(
                        'return "complete" === document.readyState && '
                        .'[...document.querySelectorAll(arguments[0])].some((e) => e.innerText.includes(arguments[1]))',
                        [$selector, $words],
                    );
            } catch (WebDriverException) {
                // The page is just being changed for the next one.
                return false;
            }
        }, sprintf('“%s” in %s', $words, $selector));
    }

    /** What a worker does after the answer: the page is opened anew until it is there. */
    protected static function untilOpened(string $path, string $selector, string $words): void
    {
        self::$chrome->wait(20, 200)->until(static function () use ($path, $selector, $words): bool {
            self::open($path);

            return true ===
                self::$chrome->executeScript(
                    'return [...document.querySelectorAll(arguments[0])].some((e) => '
                    .'e.innerText.includes(arguments[1]))',
                    [$selector, $words],
                );
        }, sprintf('“%s” in %s of %s', $words, $selector, $path));
    }

    protected static function gone(string $selector): void
    {
        self::$chrome
            ->wait(8, 50)
            ->until(
                static fn (): bool => [] === self::$chrome->findElements(WebDriverBy::cssSelector($selector)),
                'still there: '.$selector,
            );
    }

    protected static function keys(string ...$keys): void
    {
        self::$chrome->getKeyboard()->sendKeys($keys);
    }

    /** A key pressed while another is held, wherever the focus goes by it. */
    protected static function chord(string $held, string $key): void
    {
        self::$chrome->action()->keyDown(null, $held)->sendKeys(null, $key)->keyUp(null, $held)->perform();
    }

    /** Over what stands in the field. */
    protected static function type(WebDriverElement $field, string $keys): void
    {
        $field->click();
        self::$chrome->getKeyboard()->sendKeys([WebDriverKeys::CONTROL, 'a', WebDriverKeys::NULL]);
        self::$chrome->getKeyboard()->sendKeys($keys);
    }

    /** The page inside the window; Chromium's own window is never narrower than 500. */
    protected static function resize(int $width, int $height): void
    {
        (new ChromeDevToolsDriver(self::$chrome))->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => $width < 700,
        ]);
    }

    /** Whether the browser has no connection. */
    protected static function offline(bool $offline): void
    {
        $tools = new ChromeDevToolsDriver(self::$chrome);
        $tools->execute('Network.enable', []);
        $tools->execute('Network.emulateNetworkConditions', [
            'offline' => $offline, 'latency' => 0, 'downloadThroughput' => -1, 'uploadThroughput' => -1,
        ]);
    }

    protected static function doTheNextThing(): void
    {
        try {
            self::chord(WebDriverKeys::CONTROL, WebDriverKeys::ENTER);
        } catch (WebDriverException) {
            // The page has gone on before the last key was let go.
        }
    }

    /** The question that was opened, answered with yes. */
    protected static function confirm(string $words): void
    {
        self::until('#ask[open]', $words);
        self::one('#ask-yes')->sendKeys(WebDriverKeys::ENTER);
    }

    protected static function signIn(string $name): void
    {
        self::$chrome->manage()->deleteAllCookies();
        self::open('/sign-in');
        self::one('input[name="email"]')->sendKeys($name.'@larkmoor.example');
        self::one('input[name="password"]')->sendKeys('larkmoor-honey'.WebDriverKeys::ENTER);
        self::until('h1', 'Monday 23 November');
    }
}
