<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use Brick\Math\BigInteger;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Iban;

/** Bank account numbers: the examples of ISO 13616-1, check digits by mod 97-10 of ISO 7064. */
final class IbanTest extends TestCase
{
    public function testTheExamplesOfTheStandard(): void
    {
        self::assertSame('GB82WEST12345698765432', Iban::of('GB82 WEST 1234 5698 7654 32')->digits);
        self::assertSame('DE89 3704 0044 0532 0130 00', Iban::of('de89370400440532013000')->readable());
        self::assertSame('CH9300762011623852957', Iban::of('CH93 0076 2011 6238 5295 7')->digits);
    }

    /** By the definition, on the whole number: the last four in front moved behind, letters as numbers. */
    public function testTheRemainderIsThatOfTheWholeNumber(): void
    {
        foreach (['GB82WEST12345698765432', 'DE89370400440532013000'] as $iban) {
            $digits = (string) preg_replace_callback(
                '/[A-Z]/',
                static fn (array $found): string => (string) (ord($found[0]) - 55),
                substr($iban, 4).substr($iban, 0, 4),
            );
            self::assertTrue(BigInteger::of($digits)->mod(97)->isEqualTo(1));
        }
    }

    /** Two digits that change places, or one that is another, are noticed: always, by mod 97-10. */
    public function testEverySlipOfOneDigitAndEverySwapOfNeighboursIsNoticed(): void
    {
        $good = 'DE89370400440532013000';
        for ($at = 2; $at < strlen($good); ++$at) {
            foreach (range(0, 9) as $digit) {
                if ((string) $digit !== $good[$at]) {
                    self::assertNotGood(substr_replace($good, (string) $digit, $at, 1));
                }
            }
            $next = $good[$at + 1] ?? $good[$at];
            if ($next !== $good[$at]) {
                self::assertNotGood(substr_replace($good, $next.$good[$at], $at, 2));
            }
        }
    }

    private static function assertNotGood(string $iban): void
    {
        try {
            $read = Iban::of($iban);
        } catch (InvalidValue) {
            $read = null;
        }
        self::assertNull($read, $iban);
    }

    /**
     * By the registry of ISO 13616 (memory); the check digits are worked out here, by the definition.
     *
     * @return iterable<int, array{int, list<string>}> characters, countries
     */
    public static function lengths(): iterable
    {
        yield 15 => [15, ['NO']];
        yield 16 => [16, ['BE']];
        yield 18 => [18, ['DK', 'FI', 'NL']];
        yield 19 => [19, ['SI']];
        yield 20 => [20, ['AT', 'EE', 'LT', 'LU']];
        yield 21 => [21, ['CH', 'HR', 'LI', 'LV']];
        yield 22 => [22, ['BG', 'DE', 'GB', 'IE']];
        yield 23 => [23, ['GI']];
        yield 24 => [24, ['AD', 'CZ', 'ES', 'RO', 'SE', 'SK']];
        yield 25 => [25, ['PT']];
        yield 26 => [26, ['IS']];
        yield 27 => [27, ['FR', 'GR', 'IT', 'MC', 'SM']];
        yield 28 => [28, ['CY', 'HU', 'PL']];
        yield 31 => [31, ['MT']];
    }

    /** @param list<string> $countries */
    #[DataProvider('lengths')]
    public function testHowLongItIsInACountry(int $length, array $countries): void
    {
        $made = static function (string $country, int $long): string {
            $rest = substr('0123456789012345678901234567890', 0, $long - 4);
            $letters = (ord($country[0]) - 55).(ord($country[1]) - 55);
            $left = BigInteger::of($rest.$letters.'00')->mod(97)->toInt();

            return $country.str_pad((string) (98 - $left), 2, '0', \STR_PAD_LEFT).$rest;
        };
        foreach ($countries as $country) {
            self::assertSame($made($country, $length), Iban::of($made($country, $length))->digits);
            self::assertNotGood($made($country, $length + 1));
            self::assertNotGood($made($country, $length - 1));
        }
    }

    public function testOfOtherCountriesNobodyKnowsTheLength(): void
    {
        self::assertSame('TR330006100519786457841326', Iban::of('TR33 0006 1005 1978 6457 8413 26')->digits);
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        yield 'too short for its country' => ['DE8937040044053201300', 'an IBAN of DE has 22'];
        yield 'nothing like it' => ['1234', 'is no IBAN'];
        yield 'check digits' => ['GB83 WEST 1234 5698 7654 32', 'check digits do not fit'];
        yield 'other letters' => ['GB82 WÉST 1234 5698 7654 32', 'is no IBAN'];
    }

    #[DataProvider('bad')]
    public function testWhatIsWrongIsSaid(string $typed, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        Iban::of($typed);
    }

    public function testABankIsNamedByEightOrElevenCharacters(): void
    {
        self::assertSame('DEUTDEFF500', Iban::bank(' deutdeff500 '));
        self::assertSame('', Iban::bank(''));
        foreach (['DEUTDEF', 'DEUT1EFF', 'DEUTDEFF50'] as $bad) {
            try {
                Iban::bank($bad);
                self::fail($bad);
            } catch (InvalidValue $invalid) {
                self::assertStringContainsString('is no BIC', $invalid->getMessage());
            }
        }
    }
}
