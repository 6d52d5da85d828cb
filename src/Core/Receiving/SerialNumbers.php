<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use TallBarrel\Core\InvalidValue;

/** Serial numbers as they are typed, pasted or scanned: one behind the other, ranges as "A100-A119" or "A100..A119". */
final readonly class SerialNumbers
{
    private const MOST = 5000;
    private const LONGEST = 40;

    /**
     * @return list<string> as typed, each once
     *
     * @throws InvalidValue if one stands twice or is too long, a range runs backwards, or there are too many
     */
    public static function read(string $typed): array
    {
        $numbers = [];
        foreach (preg_split('/[\s,;]+/u', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            foreach (self::expand($part) as $number) {
                if (mb_strlen($number) > self::LONGEST) {
                    throw InvalidValue::because(
                        sprintf('“%s…” is longer than %d characters.', mb_substr($number, 0, 20), self::LONGEST),
                    );
                }
                if (isset($numbers[mb_strtoupper($number)])) {
                    throw InvalidValue::because(sprintf('%s stands twice.', $number));
                }
                $numbers[mb_strtoupper($number)] = $number;
                if (count($numbers) > self::MOST) {
                    throw InvalidValue::because(sprintf('More than %d serial numbers at once.', self::MOST));
                }
            }
        }

        return array_values($numbers);
    }

    /**
     * A range has the same letters on both sides and as many digits; anything else with a hyphen is one number.
     *
     * @return iterable<string>
     *
     * @throws InvalidValue
     */
    private static function expand(string $part): iterable
    {
        $range = '/^(\D*)(\d{1,18})(?:\.\.|-)(\D*)(\d{1,18})$/u';
        if (
            1 !== preg_match($range, $part, $found)
            || 0 !== strcasecmp($found[1], $found[3])
            || strlen($found[2]) !== strlen($found[4])
        ) {
            yield $part;

            return;
        }
        [$from, $to] = [(int) $found[2], (int) $found[4]];
        if ($to < $from) {
            throw InvalidValue::because(sprintf('“%s” runs backwards.', $part));
        }
        if ($to - $from >= self::MOST) {
            throw InvalidValue::because(sprintf('“%s” is more than %d serial numbers.', $part, self::MOST));
        }
        for ($i = $from; $i <= $to; ++$i) {
            yield $found[1].str_pad((string) $i, strlen($found[2]), '0', \STR_PAD_LEFT);
        }
    }
}
