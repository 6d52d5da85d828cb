<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\OneTimeCode;

/** RFC 6238, appendix B (SHA-1, eight digits, the secret "12345678901234567890"). */
final class OneTimeCodeTest extends TestCase
{
    private const SECRET = '12345678901234567890';

    /** @return iterable<string, array{int, string}> */
    public static function vectors(): iterable
    {
        yield '1970-01-01 00:00:59' => [59, '94287082'];
        yield '2005-03-18 01:58:29' => [1111111109, '07081804'];
        yield '2005-03-18 01:58:31' => [1111111111, '14050471'];
        yield '2009-02-13 23:31:30' => [1234567890, '89005924'];
        yield '2033-05-18 03:33:20' => [2000000000, '69279037'];
        yield '2603-10-11 11:33:20' => [20000000000, '65353130'];
    }

    #[DataProvider('vectors')]
    public function testTheCodesOfTheStandard(int $seconds, string $code): void
    {
        $step = OneTimeCode::step(new \DateTimeImmutable('@'.$seconds));
        self::assertSame($code, OneTimeCode::at(OneTimeCode::secret(self::SECRET), $step, 8));
    }

    /** RFC 4226, appendix D: six digits of the first counters. */
    public function testTheFirstCountersOfTheOlderStandard(): void
    {
        $secret = OneTimeCode::secret(self::SECRET);
        self::assertSame(
            ['755224', '287082', '359152', '969429', '338314', '254676', '287922', '162583', '399871', '520489'],
            array_map(static fn (int $count): string => OneTimeCode::at($secret, $count), range(0, 9)),
        );
    }

    /** RFC 4648, section 10, without the padding. */
    public function testSecretsAreWrittenInBase32(): void
    {
        self::assertSame('MZXW6YTBOI', OneTimeCode::secret('foobar'));
        self::assertSame('MZXW6YTB', OneTimeCode::secret('fooba'));
        self::assertSame('MY', OneTimeCode::secret('f'));
    }

    public function testACodeServesOnceAndOneStepAside(): void
    {
        $secret = OneTimeCode::secret(self::SECRET);
        $now = new \DateTimeImmutable('2026-11-23 10:30:15');
        $step = OneTimeCode::step($now);
        $code = OneTimeCode::at($secret, $step);
        self::assertSame($step, OneTimeCode::match($secret, substr($code, 0, 3).' '.substr($code, 3), $now, null));
        self::assertSame($step, OneTimeCode::match($secret, $code, $now->modify('+30 seconds'), null));
        self::assertNull(OneTimeCode::match($secret, $code, $now->modify('+60 seconds'), null), 'too late');
        self::assertNull(OneTimeCode::match($secret, $code, $now, $step), 'it served already');
        self::assertNull(OneTimeCode::match($secret, '', $now, null));
    }
}
