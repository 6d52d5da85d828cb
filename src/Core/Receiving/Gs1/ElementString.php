<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving\Gs1;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;

/**
 * What a GS1-128 or GS1 DataMatrix symbol says: one thing after the other, each behind its application identifier.
 *
 * Source: GS1 General Specifications, sections 3 (meaning), 7.8 (concatenation, FNC1), 7.9 (check digits), 7.11
 * (character set 82) and 7.12 (centuries of two-digit years).
 */
final readonly class ElementString
{
    /** As FNC1 is transmitted, and what keyboard scanners put in its place (common practice, no source). */
    private const SEPARATORS = ["\x1D", "\u{241D}", '|', '~', '^'];
    /** What a scanner says of the kind of symbol: GS1-128, DataMatrix, QR, DataBar, DotCode. */
    private const SYMBOLOGIES = '/^\](C1|d2|Q3|e0|J1)/';
    private const CHARACTERS = '/^[!"%&\'()*+,\-.\/0-9:;<=>?A-Z_a-z]+$/';

    /** @param array<array-key, string> $elements by application identifier, as they were read */
    private function __construct(
        public array $elements,
        public ?Gtin $gtin,
        public string $lot,
        public string $serial,
        public ?\DateTimeImmutable $madeOn,
        public ?\DateTimeImmutable $useBy,
        public ?int $count,
        public ?BigDecimal $kilograms,
    ) {
    }

    /** Whether a scan is one at all, and not a plain code. */
    public static function isOne(string $scanned): bool
    {
        return 1 === preg_match(self::SYMBOLOGIES, $scanned)
            || 1 === preg_match('/^\(\d{2,4}\)/', $scanned)
            || $scanned !== str_replace(["\x1D", "\u{241D}"], '', $scanned)
            || (1 === preg_match('/^0[12](\d{14})\d/', $scanned, $found) && null !== Gtin::tryOf($found[1]))
            || 1 === preg_match('/^00\d{18}$/', $scanned);
    }

    /**
     * @param string             $scanned as the scanner sends it, or as printed below the bars, "(01)…(10)…"
     * @param \DateTimeImmutable $today   decides the century of a two-digit year
     *
     * @throws InvalidValue which names the identifier and what is wrong with what follows it
     */
    public static function read(string $scanned, \DateTimeImmutable $today): self
    {
        $scanned = (string) preg_replace(self::SYMBOLOGIES, '', trim($scanned));
        $elements = str_starts_with($scanned, '(') ? self::printed($scanned) : self::transmitted($scanned);
        foreach (['00', '01', '02'] as $digits) {
            if (isset($elements[$digits])) {
                self::mustCheck($digits, $elements[$digits]);
            }
        }
        if (isset($elements['02']) !== isset($elements['37'])) {
            throw InvalidValue::because(isset($elements['02'])
                ? '(02) names what is in it, but (37), how many of them, is missing.'
                : '(37) says how many are in it, but (02), of what, is missing.');
        }
        $gtin = $elements['01'] ?? $elements['02'] ?? null;
        $day = static fn (string $digits): ?\DateTimeImmutable => isset($elements[$digits])
            ? self::day($digits, $elements[$digits], $today)
            : null;
        // Best before stands for use by where that is not said.
        $made = $day('11') ?? $day('13');
        $useBy = $day('17') ?? $day('15');
        $count = $elements['37'] ?? $elements['30'] ?? null;

        return new self(
            $elements,
            null === $gtin ? null : Gtin::of($gtin),
            $elements['10'] ?? '',
            $elements['21'] ?? '',
            $made,
            $useBy,
            null === $count ? null : (int) $count,
            self::kilograms($elements),
        );
    }

    /**
     * @return array<array-key, string>
     *
     * @throws InvalidValue
     */
    private static function printed(string $text): array
    {
        preg_match_all('/\((\d{2,4})\)([^(]*(?:\((?!\d{2,4}\))[^(]*)*)/', $text, $found, \PREG_SET_ORDER);
        $elements = [];
        foreach ($found as [, $digits, $value]) {
            $identifier = Identifier::at($digits);
            if ($identifier?->digits !== $digits) {
                throw InvalidValue::because(sprintf('(%s) is no application identifier that is read here.', $digits));
            }
            self::add($elements, $identifier, $value);
        }

        return $elements;
    }

    /**
     * @return array<array-key, string>
     *
     * @throws InvalidValue
     */
    private static function transmitted(string $text): array
    {
        $text = str_replace(self::SEPARATORS, "\x1D", $text);
        $elements = [];
        $last = 'the beginning';
        while ('' !== $text = ltrim($text, "\x1D")) {
            $identifier = Identifier::at($text);
            if (null === $identifier) {
                throw InvalidValue::because(sprintf(
                    'After %s stands “%s”, which is no application identifier that is read here.',
                    $last,
                    mb_strimwidth($text, 0, 12, '…'),
                ));
            }
            $text = substr($text, strlen($identifier->digits));
            $long = $identifier->isFixed ? $identifier->length : strcspn($text, "\x1D");
            self::add($elements, $identifier, substr($text, 0, $long));
            $text = substr($text, $long);
            $last = '('.$identifier->digits.')';
        }

        return $elements;
    }

    /**
     * @param array<array-key, string> $elements
     *
     * @throws InvalidValue
     */
    private static function add(array &$elements, Identifier $identifier, string $value): void
    {
        $digits = $identifier->digits;
        if (isset($elements[$digits]) && $elements[$digits] !== $value) {
            throw self::cannotBe($identifier, $value, sprintf('and “%s” stands there too', $elements[$digits]));
        }
        self::mustBeWritable($identifier, $value);
        $elements[$digits] = $value;
    }

    /** @throws InvalidValue if the value cannot stand behind the identifier */
    public static function mustBeWritable(Identifier $identifier, string $value): void
    {
        $objection = match (true) {
            '' === $value => 'nothing stands behind it',
            $identifier->isFixed && strlen($value) !== $identifier->length => sprintf(
                '%d characters where %d are expected',
                strlen($value),
                $identifier->length,
            ),
            strlen($value) > $identifier->length => sprintf('longer than %d characters', $identifier->length),
            'n' === $identifier->kind && !ctype_digit($value) => 'expected digits',
            1 !== preg_match(self::CHARACTERS, $value) => 'characters that GS1 symbols do not have',
            default => null,
        };
        if (null !== $objection) {
            throw self::cannotBe($identifier, $value, $objection);
        }
    }

    private static function cannotBe(Identifier $identifier, string $value, string $objection): InvalidValue
    {
        return InvalidValue::because(
            sprintf('(%s) “%s”: %s.', $identifier->digits, mb_strimwidth($value, 0, 30, '…'), $objection),
        );
    }

    /** @throws InvalidValue */
    private static function mustCheck(string $digits, string $value): void
    {
        $expected = Gtin::checkDigit(substr($value, 0, -1));
        if ((int) substr($value, -1) !== $expected) {
            throw InvalidValue::because(sprintf(
                '(%s) %s ends in %s, but its check digit is %d.',
                $digits,
                $value,
                substr($value, -1),
                $expected,
            ));
        }
    }

    /**
     * A day of 00 is the last of its month.
     *
     * @throws InvalidValue
     */
    private static function day(string $digits, string $value, \DateTimeImmutable $today): \DateTimeImmutable
    {
        [$year, $month, $day] = array_map(intval(...), str_split($value, 2));
        $year += self::century($year, (int) $today->format('Y'));
        if ($month < 1 || $month > 12) {
            throw InvalidValue::because(sprintf('(%s) %s: there is no month %02d.', $digits, $value, $month));
        }
        $last = (int) (new \DateTimeImmutable(sprintf('%04d-%02d-01', $year, $month)))->format('t');
        if ($day > $last) {
            throw InvalidValue::because(sprintf(
                '(%s) %s: %s has %d days.',
                $digits,
                $value,
                (new \DateTimeImmutable(sprintf('%04d-%02d-01', $year, $month)))->format('F Y'),
                $last,
            ));
        }

        return new \DateTimeImmutable(sprintf('%04d-%02d-%02d', $year, $month, 0 === $day ? $last : $day));
    }

    /** Two digits more than 50 ahead are of the century before, more than 49 behind of the next: section 7.12. */
    private static function century(int $twoDigits, int $thisYear): int
    {
        $here = intdiv($thisYear, 100) * 100;
        $ahead = $twoDigits - $thisYear % 100;

        return match (true) {
            $ahead >= 51 => $here - 100,
            $ahead <= -50 => $here + 100,
            default => $here,
        };
    }

    /** @param array<array-key, string> $elements */
    private static function kilograms(array $elements): ?BigDecimal
    {
        foreach ($elements as $digits => $value) {
            if (str_starts_with((string) $digits, '310')) {
                return BigDecimal::ofUnscaledValue((int) $value, (int) substr((string) $digits, 3));
            }
        }

        return null;
    }
}
