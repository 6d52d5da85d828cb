<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;

/**
 * How numbers are written: which mark, point or comma, divides the whole from its part; the other one, spaces and
 * apostrophes group the thousands. The one reader of numbers that somebody typed, in forms, files and at the console.
 *
 * A number whose own form tells the marks apart is read by its form, whatever the usual mark is: "12.500,00", "7,5" and
 * "1,234,567" can be read in one way only. "1,000" and "1.000" cannot; the usual mark decides, and where none is known
 * they are refused with both readings.
 */
final readonly class Numerals
{
    public const POINT = '.';
    public const COMMA = ',';

    private const SPACES = [' ', "\t", "\u{a0}", "\u{2009}", "\u{202f}", "'", '’'];
    private const QUANTITY = 'a quantity such as 12 or 2.5';
    private const PRICE = 'an amount of 0 or more, such as 9.30';
    private const DECIMALS = [0 => 'no', 1 => 'one', 2 => 'two', 3 => 'three', 4 => 'four', 5 => 'five', 6 => 'six'];

    private function __construct(public ?string $mark)
    {
    }

    /** @throws InvalidValue unless it is a point or a comma */
    public static function with(string $mark): self
    {
        if (!in_array($mark, [self::POINT, self::COMMA], true)) {
            throw InvalidValue::because(sprintf('“%s” is no decimal mark; expected a point or a comma.', $mark));
        }

        return new self($mark);
    }

    /** Where nobody has said which mark it is. */
    public static function unknown(): self
    {
        return new self(null);
    }

    /**
     * The mark that a file's own numbers bear out: at least one can only be read with it, and none only with the other.
     *
     * @param iterable<string> $cells as they stand in the file; what is no number does not count
     */
    public static function guessedFrom(iterable $cells): self
    {
        $with = [self::POINT => 0, self::COMMA => 0];
        foreach ($cells as $cell) {
            // Prices with breaks and discounts hold several: "1=9.30 40=8.97", "10 + 2,5".
            foreach (
                1 === preg_match('/^[\d.,=+%\s-]+$/', $cell) ? (
                    preg_split('/[=+\s%]+/', $cell) ?: []
                ) : [$cell] as $part
            ) {
                foreach (self::marksOf(self::bare($part)) as $mark => $possible) {
                    $with[$mark] += $possible ? 1 : 0;
                }
            }
        }

        return match (true) {
            $with[self::POINT] > 0 && 0 === $with[self::COMMA] => new self(self::POINT),
            $with[self::COMMA] > 0 && 0 === $with[self::POINT] => new self(self::COMMA),
            default => self::unknown(),
        };
    }

    /**
     * A quantity of 0 or more, to a thousandth.
     *
     * @throws InvalidValue
     */
    public function quantity(string $typed): BigDecimal
    {
        return $this->decimal($typed, Quantity::SCALE, self::QUANTITY, most: 9_999_999);
    }

    /**
     * A price or an amount of money of 0 or more, to a millionth.
     *
     * @throws InvalidValue
     */
    public function price(string $typed): BigDecimal
    {
        return $this->decimal($typed, 6, self::PRICE, most: 999_999_999);
    }

    /**
     * @param int    $decimals at most
     * @param string $expected what the refusal says was expected
     * @param bool   $signed   whether it may be below 0
     * @param int    $most     the largest it may be
     *
     * @throws InvalidValue naming what was typed
     */
    public function decimal(
        string $typed,
        int $decimals,
        string $expected = 'a number',
        bool $signed = false,
        int $most = 9_999_999_999,
    ): BigDecimal {
        $bare = self::bare($typed);
        $plain = $this->plain($bare, $typed) ?? throw InvalidValue::notANumber($typed, $expected);
        $number = BigDecimal::of($plain)->strippedOfTrailingZeros();
        if (!$signed && $number->isNegative()) {
            throw InvalidValue::negative($typed, $expected);
        }
        if ($number->getScale() > $decimals) {
            throw InvalidValue::because(
                sprintf('“%s” has more than %s decimals.', $typed, self::DECIMALS[$decimals] ?? $decimals),
            );
        }
        if ($number->abs()->isGreaterThan($most)) {
            throw InvalidValue::because(sprintf('“%s” is more than %s.', $typed, number_format($most)));
        }

        return $number;
    }

    /** @throws InvalidValue if it can be read in two ways */
    private function plain(string $bare, string $typed): ?string
    {
        if (strlen($bare) > 24) {
            return null;
        }
        if (1 === preg_match('/^[-+]?\d{1,3}([.,])\d{3}$/', $bare, $found) && '0' !== ltrim($bare, '+-')[0]) {
            return match ($this->mark) {
                null => throw InvalidValue::because(
                    sprintf(
                        '“%s” can be read as %s or as %s; say which decimal mark is used.',
                        $typed,
                        str_replace($found[1], '', $bare),
                        rtrim(rtrim(str_replace(',', '.', $bare), '0'), '.'),
                    ),
                ),
                $found[1] => str_replace(',', '.', $bare),
                default => str_replace($found[1], '', $bare),
            };
        }
        foreach ([self::POINT => self::COMMA, self::COMMA => self::POINT] as $mark => $group) {
            if (self::fits($bare, $mark, $group)) {
                return self::normal(str_replace([$group, $mark], ['', '.'], $bare));
            }
        }

        return null;
    }

    /** @return array<string, bool> for each mark, whether the form tells that it is the one */
    private static function marksOf(string $bare): array
    {
        if (
            1 !== preg_match('/[.,]/', $bare)
            || (1 === preg_match('/^[-+]?\d{1,3}[.,]\d{3}$/', $bare) && '0' !== ltrim($bare, '+-')[0])
        ) {
            return [self::POINT => false, self::COMMA => false];
        }

        return [
            self::POINT => self::fits($bare, self::POINT, self::COMMA),
            self::COMMA => self::fits($bare, self::COMMA, self::POINT),
        ];
    }

    private static function fits(string $bare, string $mark, string $group): bool
    {
        [$mark, $group] = [preg_quote($mark, '/'), preg_quote($group, '/')];

        return 1 === preg_match("/^[-+]?(\d+|[1-9]\d{0,2}({$group}\d{3})+)?({$mark}\d*)?$/", $bare)
            && 1 === preg_match('/\d/', $bare);
    }

    private static function normal(string $number): string
    {
        $number = rtrim(ltrim($number, '+'), '.');

        return str_starts_with($number, '.') || str_starts_with($number, '-.')
            ? str_replace('.', '0.', $number)
            : $number;
    }

    private static function bare(string $typed): string
    {
        return str_replace('−', '-', str_replace(self::SPACES, '', trim($typed)));
    }
}
