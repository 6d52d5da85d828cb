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
    private static function words(string $language): array
    {
        /** @var array<string, string> $words */
        $words = Yaml::parseFile(dirname(__DIR__, 2).'/translations/paper.'.$language.'.yaml');

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
        $words = self::words($language);
        self::assertSame(array_keys(self::words('en')), array_keys($words));
        foreach ($words as $key => $said) {
            preg_match_all('/%\w+%/', self::words('en')[$key], $needed);
            foreach ($needed[0] as $place) {
                self::assertStringContainsString($place, $said, $key);
            }
        }
        foreach (TaxCategory::untaxed() as $category) {
            self::assertArrayHasKey($category->words(), $words);
        }
    }

    public function testEveryWordThePaperAsksForIsThere(): void
    {
        $known = self::words('en');
        $asked = 0;
        foreach (['paper/order.html.twig', 'paper/letter.txt.twig', '_parts/sums.html.twig'] as $template) {
            preg_match_all(
                "/'([^']+)'\\|trans\\(/",
                (string) file_get_contents(dirname(__DIR__, 2).'/templates/'.$template),
                $found,
            );
            $asked += count($found[1]);
            foreach ($found[1] as $key) {
                self::assertArrayHasKey($key, $known, $template);
            }
        }
        self::assertGreaterThan(30, $asked);
    }
}
