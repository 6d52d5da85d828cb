<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Architecture;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Reads the use lines of src/: a room may only know the rooms its arrows point at. */
final class ArrowsTest extends TestCase
{
    private const ARROWS = [
        'Core' => ['Random\\', 'TallBarrel\Core\\', 'Brick\Math\\'],
        'Store' => ['TallBarrel\Core\\', 'TallBarrel\Store\\', 'Brick\Math\\', 'Doctrine\\', 'Symfony\Component\Clock\\', 'Symfony\Component\Security\Core\User\\'],
        'Desk' => ['TallBarrel\Core\\', 'TallBarrel\Store\\', 'TallBarrel\Desk\\', 'Brick\Math\\', 'Doctrine\\', 'Symfony\\', 'Twig\\'],
        'Exchange' => ['TallBarrel\Core\\', 'TallBarrel\Store\\', 'TallBarrel\Exchange\\', 'Brick\Math\\', 'Doctrine\\', 'Symfony\\', 'Twig\\', 'Dompdf\\', 'Psr\\', 'Random\\'],
    ];

    /** @return iterable<string, array{string}> */
    public static function rooms(): iterable
    {
        foreach (array_keys(self::ARROWS) as $room) {
            yield $room => [$room];
        }
    }

    #[DataProvider('rooms')]
    public function testARoomKnowsOnlyWhatItsArrowsPointAt(string $room): void
    {
        $files = self::files($room);
        self::assertGreaterThan(5, count($files));
        $wrong = [];
        foreach ($files as $file) {
            foreach (self::named((string) file_get_contents($file)) as $class) {
                if (str_contains($class, '\\') && [] === array_filter(self::ARROWS[$room], static fn (string $prefix): bool => str_starts_with($class, $prefix))) {
                    $wrong[] = basename($file).' uses '.$class;
                }
            }
        }
        self::assertSame([], $wrong);
    }

    public function testCoreAsksNoClockAndTouchesNoFile(): void
    {
        foreach (self::files('Core') as $file) {
            self::assertDoesNotMatchRegularExpression('/\b(time|date|microtime|file_get_contents|fopen|getenv|mt_rand|random_int)\s*\(|new \\\\DateTimeImmutable\(\)/', (string) file_get_contents($file), $file);
        }
    }

    public function testAWrongArrowWouldBeSeen(): void
    {
        self::assertSame(['TallBarrel\Store\Item\Item', 'Doctrine\DBAL\LockMode'], self::named("<?php\nuse TallBarrel\\Store\\Item\\Item as Thing;\n\\Doctrine\\DBAL\\LockMode::NONE;"));
    }

    /** @return list<string> classes in use lines, and those written out in full */
    private static function named(string $code): array
    {
        preg_match_all('/^use ([\w\\\\]+)/m', $code, $uses);
        preg_match_all('/(?<![\w\\\\])\\\\([A-Z]\w*(?:\\\\\w+)+)/', $code, $full);

        return [...$uses[1], ...$full[1]];
    }

    /** @return list<string> */
    private static function files(string $room): array
    {
        $files = [];
        /** @var \SplFileInfo $file */
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(dirname(__DIR__, 2).'/src/'.$room, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if ('php' === $file->getExtension()) {
                $files[] = $file->getPathname();
            }
        }

        return $files;
    }
}
