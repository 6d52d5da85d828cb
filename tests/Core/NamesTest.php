<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Country;
use TallBarrel\Core\EmailAddress;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\ItemCode;

/** What people call items, and where they are to be found. */
final class NamesTest extends TestCase
{
    /** @return iterable<string, array{string}> */
    public static function codes(): iterable
    {
        foreach (['A/B', 'M 8 × 40', "O'Shea", 'Größe-5', 'a.b/c..d', '100%', '#7', 'ΛΜ',
            str_repeat('x', 40)] as $code) {
            yield $code => [$code];
        }
    }

    #[DataProvider('codes')]
    public function testACodeIsWhatABusinessHas(string $code): void
    {
        self::assertSame($code, ItemCode::read(' '.$code.' '));
    }

    /** @return iterable<string, array{string, string}> */
    public static function noCodes(): iterable
    {
        yield 'nothing' => ['  ', 'is no item code'];
        yield 'too long' => [str_repeat('x', 41), 'expected 1 to 40'];
        yield 'a line of its own' => ["A\nB", 'cannot be seen'];
        yield 'no letters at all' => ["\xff\xfe", 'cannot be seen'];
        yield 'a blank that looks like none' => ["A\u{a0}B", 'cannot be seen'];
        yield 'a way up' => ['A/../B', 'a slash stands between'];
        yield 'a slash at the end' => ['A/', 'a slash stands between'];
        yield 'the name of a page' => ['NEW', 'name of a page'];
    }

    #[DataProvider('noCodes')]
    public function testWhatAnAddressCannotCarryIsRefused(string $code, string $reason): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($reason);
        ItemCode::read($code);
    }

    public function testAnAddressHasOneSpelling(): void
    {
        self::assertSame('anna.long@example.org', EmailAddress::read('  Anna.Long@Example.ORG '));
        $this->expectExceptionMessage('“anna@” is no email address');
        EmailAddress::read('anna@');
    }

    /** ISO 3166-1. */
    public function testACountryIsOneOfTheList(): void
    {
        self::assertSame('IE', Country::read(' ie '));
        self::assertSame('Ireland', Country::name('IE'));
        foreach (['ZZ', 'EU', 'XY', 'I', 'IRL', ''] as $none) {
            try {
                Country::read($none);
                self::fail($none.' is no country');
            } catch (InvalidValue $invalid) {
                self::assertStringContainsString('is no country', $invalid->getMessage());
            }
        }
    }
}
