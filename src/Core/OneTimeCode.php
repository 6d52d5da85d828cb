<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/**
 * Time-based one-time codes: RFC 6238 over HMAC-SHA-1, steps of 30 seconds from the Unix epoch, six digits. Secrets are
 * written in base 32 (RFC 4648), as the apps that show such codes take them.
 */
final readonly class OneTimeCode
{
    private const STEP = 30;
    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
    /** Steps a clock may be wrong by, either way. */
    private const DRIFT = 1;

    private function __construct()
    {
    }

    /** A new secret from 20 random bytes, as RFC 4226 asks for. */
    public static function secret(string $bytes): string
    {
        $bits = '';
        foreach (str_split($bytes) as $byte) {
            $bits .= str_pad(decbin(ord($byte)), 8, '0', \STR_PAD_LEFT);
        }
        $secret = '';
        foreach (str_split($bits, 5) as $five) {
            $secret .= self::ALPHABET[(int) bindec(str_pad($five, 5, '0'))];
        }

        return $secret;
    }

    public static function step(\DateTimeImmutable $now): int
    {
        return intdiv($now->getTimestamp(), self::STEP);
    }

    /**
     * @param string $secret base 32
     * @param int    $step   number of the step of 30 seconds
     */
    public static function at(string $secret, int $step, int $digits = 6): string
    {
        $hash = hash_hmac('sha1', pack('J', $step), self::bytes($secret), true);
        $offset = ord($hash[19]) & 0xF;
        /** @var array{1: int} $number */
        $number = unpack('N', substr($hash, $offset, 4));

        return str_pad((string) (($number[1] & 0x7FFFFFFF) % 10 ** $digits), $digits, '0', \STR_PAD_LEFT);
    }

    /**
     * The step a code belongs to, now or one step aside; null for a wrong one or one that served before.
     *
     * @param int|null $last step of the last code that was taken
     */
    public static function match(string $secret, string $typed, \DateTimeImmutable $now, ?int $last): ?int
    {
        $code = str_replace([' ', '-'], '', $typed);
        $found = null;
        foreach (range(-self::DRIFT, self::DRIFT) as $aside) {
            $step = self::step($now) + $aside;
            if (hash_equals(self::at($secret, $step), $code) && (null === $last || $step > $last)) {
                $found = $step;
            }
        }

        return $found;
    }

    private static function bytes(string $secret): string
    {
        $bits = '';
        foreach (str_split(strtoupper($secret)) as $letter) {
            $bits .= str_pad(decbin((int) strpos(self::ALPHABET, $letter)), 5, '0', \STR_PAD_LEFT);
        }
        $bytes = '';
        foreach (str_split(substr($bits, 0, intdiv(strlen($bits), 8) * 8), 8) as $eight) {
            $bytes .= chr((int) bindec($eight));
        }

        return $bytes;
    }
}
