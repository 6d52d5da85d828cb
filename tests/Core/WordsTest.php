<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is written of a state, a kind or an account tells it from every other. */
final class WordsTest extends TestCase
{
    private const CORE = __DIR__.'/../../src/Core';

    /** @return iterable<string, array{class-string<\BackedEnum>}> */
    public static function enumerations(): iterable
    {
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator(self::CORE, \FilesystemIterator::SKIP_DOTS),
        );
        /** @var \SplFileInfo $file */
        foreach ($files as $file) {
            $name = str_replace([self::CORE, '.php', '/'], ['', '', '\\'], $file->getPathname());
            /** @var class-string<\BackedEnum> $class */
            $class = 'TallBarrel\Core'.$name;
            if (enum_exists($class) && method_exists($class, 'words')) {
                yield ltrim($name, '\\') => [$class];
            }
        }
    }

    /** @param class-string<\BackedEnum> $class */
    #[DataProvider('enumerations')]
    public function testEachHasWordsOfItsOwn(string $class): void
    {
        $words = [];
        foreach ($class::cases() as $case) {
            $is = (new \ReflectionMethod($case, 'words'))->invoke($case);
            self::assertIsString($is);
            self::assertMatchesRegularExpression('/^\S(.*\S)?$/u', $is, (string) $case->value);
            $words[(string) $case->value] = $is;
        }
        self::assertSame($words, array_unique($words));
        self::assertNotSame([], $words);
    }

    public function testThereAreMany(): void
    {
        self::assertGreaterThan(20, iterator_count(self::enumerations()));
    }
}
