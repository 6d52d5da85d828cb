<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Architecture;

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\ParserFactory;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Resolves every name in src/: a room may only know the rooms its arrows point at. */
final class ArrowsTest extends TestCase
{
    private const ARROWS = [
        'Core' => ['Random\\', 'TallBarrel\Core\\', 'Brick\Math\\'],
        'Store' => [
            'TallBarrel\Core\\',
            'TallBarrel\Store\\',
            'Brick\Math\\',
            'Doctrine\\',
            'Symfony\Component\Clock\\',
            'Symfony\Component\Security\Core\User\\',
            'Symfony\Contracts\Service\\',
        ],
        'Work' => [
            'TallBarrel\Core\\',
            'TallBarrel\Store\\',
            'TallBarrel\Work\\',
            'Brick\Math\\',
            'Doctrine\\',
            'Psr\Cache\\',
            'Symfony\Component\Clock\\',
            'Symfony\Component\Messenger\\',
            'Symfony\Component\PasswordHasher\\',
            'Symfony\Contracts\Cache\\',
        ],
        'Desk' => [
            'TallBarrel\Core\\',
            'TallBarrel\Store\\',
            'TallBarrel\Work\\',
            'TallBarrel\Desk\\',
            'Brick\Math\\',
            'Doctrine\\',
            'Psr\Log\\',
            'Symfony\\',
            'Twig\\',
        ],
        'Exchange' => [
            'TallBarrel\Core\\',
            'TallBarrel\Store\\',
            'TallBarrel\Work\\',
            'TallBarrel\Exchange\\',
            'Brick\Math\\',
            'Doctrine\\',
            'Symfony\\',
            'Twig\\',
            'Dompdf\\',
            'Monolog\\',
            'Psr\\',
            'Random\\',
        ],
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
            foreach (self::names((string) file_get_contents($file)) as $name) {
                if (!self::mayBeKnownIn($room, $name)) {
                    $wrong[] = basename($file).' uses '.$name;
                }
            }
        }
        self::assertSame([], $wrong);
    }

    /** @return iterable<string, array{string}> */
    public static function roomsWithoutAClock(): iterable
    {
        foreach (['Core', 'Store', 'Work', 'Desk'] as $room) {
            yield $room => [$room];
        }
    }

    #[DataProvider('roomsWithoutAClock')]
    public function testWhatDayItIsComesFromTheClock(string $room): void
    {
        $wrong = [];
        foreach (self::files($room) as $file) {
            foreach (self::clocks((string) file_get_contents($file)) as $what) {
                $wrong[] = basename($file).' asks '.$what;
            }
        }
        self::assertSame([], $wrong);
    }

    public function testCoreTouchesNoFileAndDrawsNoLots(): void
    {
        foreach (self::files('Core') as $file) {
            $code = (string) file_get_contents($file);
            self::assertDoesNotMatchRegularExpression(
                '/\b(microtime|file_get_contents|fopen|getenv|mt_rand|random_int)\s*\(/',
                $code,
                $file,
            );
        }
    }

    public function testTwoClassesOfOneNameWouldBeMistaken(): void
    {
        $names = array_count_values(
            array_map(basename(...), array_merge(...array_map(self::files(...), array_keys(self::ARROWS)))),
        );
        self::assertSame([], array_keys(array_filter($names, static fn (int $count): bool => $count > 1)));
    }

    public function testWrongArrowsAndClocksWouldBeSeen(): void
    {
        $code = <<<'PHP'
        <?php
        namespace TallBarrel\Core\Money;
        use TallBarrel\Store\Item\Item as Thing;
        use TallBarrel\Desk\{Shell\Format, Today};
        class Odd extends Thing {
            function at(Today\TodayList $list)
            {
                return [new \DateTimeImmutable(), \Doctrine\DBAL\LockMode::NONE, time(), date('Y')];
            }
        }
        PHP;
        $names = self::names($code);
        foreach (['TallBarrel\Store\Item\Item', 'TallBarrel\Desk\Today\TodayList', 'Doctrine\DBAL\LockMode'] as $name) {
            self::assertContains($name, $names);
            self::assertFalse(self::mayBeKnownIn('Core', $name));
        }
        self::assertTrue(self::mayBeKnownIn('Core', 'DateTimeImmutable'));
        self::assertFalse(
            self::mayBeKnownIn('Work', 'Symfony\Component\HttpFoundation\Request'),
            'what people do knows no HTTP',
        );
        self::assertSame(['new DateTimeImmutable()', 'time()', 'date()'], self::clocks($code));
    }

    private static function mayBeKnownIn(string $room, string $name): bool
    {
        return !str_contains($name, '\\')
            || [] !==
                array_filter(self::ARROWS[$room], static fn (string $prefix): bool => str_starts_with($name, $prefix));
    }

    /** @return list<string> classes, wherever they are named, in full */
    private static function names(string $code): array
    {
        $names = [];
        foreach ((new NodeFinder())->findInstanceOf(self::tree($code), Node\Name\FullyQualified::class) as $name) {
            $names[$name->toString()] = true;
        }
        foreach ((new NodeFinder())->findInstanceOf(self::tree($code), Node\Stmt\Use_::class) as $use) {
            foreach (Node\Stmt\Use_::TYPE_NORMAL === $use->type ? $use->uses : [] as $one) {
                $names[$one->name->toString()] = true;
            }
        }

        return array_map(strval(...), array_keys($names));
    }

    /** @return list<string> where the clock of the machine is asked */
    private static function clocks(string $code): array
    {
        $found = [];
        $finder = new NodeFinder();
        foreach (
            $finder->find(
                self::tree($code),
                static fn (Node $node): bool => $node instanceof Node\Expr\New_ || $node instanceof Node\Expr\FuncCall,
            ) as $node
        ) {
            if (
                $node instanceof Node\Expr\New_
                && $node->class instanceof Node\Name
                && [] === $node->args
                && in_array($node->class->toString(), [\DateTimeImmutable::class, \DateTime::class], true)
            ) {
                $found[] = 'new '.$node->class->toString().'()';
            }
            if (
                $node instanceof Node\Expr\FuncCall
                && $node->name instanceof Node\Name
                && in_array($node->name->toString(), ['time', 'date'], true)
            ) {
                $found[] = $node->name->toString().'()';
            }
        }

        return $found;
    }

    /** @return array<Node> */
    private static function tree(string $code): array
    {
        $traverser = new NodeTraverser(new NameResolver());

        return $traverser->traverse((new ParserFactory())->createForHostVersion()->parse($code) ?? []);
    }

    /** @return list<string> */
    private static function files(string $room): array
    {
        $files = [];
        /** @var \SplFileInfo $file */
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(dirname(__DIR__, 2).'/src/'.$room, \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            if ('php' === $file->getExtension()) {
                $files[] = $file->getPathname();
            }
        }

        return $files;
    }
}
