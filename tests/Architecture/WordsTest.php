<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Architecture;

use PHPUnit\Framework\TestCase;

/** One thing, one word: docs/words.md, held against every template and every sentence of Desk. */
final class WordsTest extends TestCase
{
    /** @return array<string, list<string>> what is not said for each word */
    private static function words(): array
    {
        $words = [];
        preg_match_all(
            '/^- \*\*(.+?)\*\*: (.+?)(?:\. not: (.+))?$/m',
            (string) file_get_contents(self::root().'/docs/words.md'),
            $lines,
            PREG_SET_ORDER,
        );
        foreach ($lines as $line) {
            self::assertArrayNotHasKey($line[1], $words, 'each word once');
            $words[$line[1]] = isset($line[3]) ? explode(', ', $line[3]) : [];
        }

        return $words;
    }

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    /** @return iterable<string, string> what a person can read, by file */
    private static function said(): iterable
    {
        foreach (['templates' => 'twig', 'src/Desk' => 'php', 'src/Work' => 'php'] as $folder => $kind) {
            $files = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(self::root().'/'.$folder, \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($files as $file) {
                if ($file instanceof \SplFileInfo && $file->getExtension() === $kind) {
                    $text = (string) file_get_contents((string) $file);
                    yield $file->getFilename() => 'twig' === $kind ? self::readable($text) : self::literals($text);
                }
            }
        }
    }

    /** Of a template, without its names and code. */
    private static function readable(string $twig): string
    {
        $text = (string) preg_replace('/\{#.*?#\}|<svg.*?<\/svg>/s', ' ', $twig);
        // Words inside of braces and attributes that are shown are quoted there.
        $text = (string) preg_replace('/(?:class|hx-[\w-]+|name|id|for|href|action|d)="[^"]*"/', ' ', $text);

        $text = (string) preg_replace('/<\/?[a-z0-9]+/', ' ', $text);

        return (string) preg_replace(
            '/\{%-? *(?:set|for|if|elseif|include|extends|block|import)\b[^%]*%\}/',
            ' ',
            $text,
        );
    }

    private static function literals(string $php): string
    {
        $said = [];
        foreach (\PhpToken::tokenize($php) as $token) {
            if (
                $token->is([T_CONSTANT_ENCAPSED_STRING, T_ENCAPSED_AND_WHITESPACE]) && str_contains($token->text, ' ')
            ) {
                $said[] = $token->text;
            }
        }

        return implode("\n", $said);
    }

    public function testNoThingHasTwoWordsAndNoWordTwoThings(): void
    {
        $words = self::words();
        self::assertGreaterThan(70, count($words));
        $avoided = array_merge(...array_values($words));
        self::assertSame(array_unique($avoided), $avoided, 'each avoided word stands for one thing');
        self::assertSame([], array_intersect(array_keys($words), $avoided), 'what is a word of ours is not avoided');
    }

    public function testWordsWeDoNotUseAreNotOnAnyPage(): void
    {
        $avoided = array_merge(...array_values(self::words()));
        $pattern = '/\b(
            ?:'.implode('|', array_map(static fn (string $word): string => preg_quote($word, '/'), $avoided)).',
        )\b/i';
        $found = [];
        foreach (self::said() as $file => $text) {
            if (preg_match_all($pattern, $text, $matches) > 0) {
                $found[] = $file.': '.implode(', ', array_unique($matches[0]));
            }
        }
        self::assertSame([], $found);
    }
}
