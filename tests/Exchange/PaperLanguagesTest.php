<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Yaml\Yaml;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\PaperLanguage;

final class PaperLanguagesTest extends TestCase
{
    /** @return array<string, string> */
    private static function words(string $language, string $domain = 'paper'): array
    {
        /** @var array<string, string> $words */
        $words = Yaml::parseFile(sprintf('%s/translations/%s.%s.yaml', dirname(__DIR__, 2), $domain, $language));

        return $words;
    }

    /** @return iterable<string, array{string}> */
    public static function languages(): iterable
    {
        foreach (PaperLanguage::cases() as $language) {
            yield $language->words() => [$language->value];
        }
    }

    #[DataProvider('languages')]
    public function testEveryLanguageSaysAllThePaperSays(string $language): void
    {
        foreach (['paper', 'letter'] as $domain) {
            $words = self::words($language, $domain);
            $english = self::words('en', $domain);
            self::assertSame(array_keys($english), array_keys($words));
            foreach ($words as $key => $said) {
                preg_match_all('/%\w+%/', $english[$key], $needed);
                foreach ($needed[0] as $place) {
                    self::assertStringContainsString($place, $said, $key);
                }
            }
        }
        foreach (TaxCategory::untaxed() as $category) {
            self::assertArrayHasKey($category->words(), self::words($language));
        }
    }

    public function testEveryWordTheyAskForIsThere(): void
    {
        $asked = 0;
        $folder = dirname(__DIR__, 2).'/templates/';
        foreach ([...(glob($folder.'paper/*.twig') ?: []), $folder.'_parts/sums.html.twig'] as $template) {
            preg_match_all(
                "/'([^']+)'\\|trans\\([^|]*?, '(paper|letter)', lang\\)/s",
                (string) file_get_contents($template),
                $found,
                \PREG_SET_ORDER,
            );
            $asked += count($found);
            foreach ($found as [, $key, $domain]) {
                self::assertArrayHasKey($key, self::words('en', $domain), basename($template));
            }
        }
        self::assertGreaterThan(50, $asked);
    }
}
