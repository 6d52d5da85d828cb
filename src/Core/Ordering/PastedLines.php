<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Numerals;

/**
 * Order lines as somebody pastes them, one a row: code, packs and, where wanted, price, day and site. What divides them
 * is a tab where there is one, else a semicolon, else a comma.
 */
final readonly class PastedLines
{
    public const MOST = 2000;
    private const COLUMNS = 5;

    /** @param list<PastedLine> $lines */
    private function __construct(public array $lines)
    {
    }

    /**
     * @param Problems $problems takes what is wrong with a row, at "paste-" and its number; such rows are left out
     */
    public static function read(string $text, Numerals $numerals, Problems $problems): self
    {
        $rows = preg_split('/\r\n|\r|\n/', $text) ?: [];
        if (count($rows) > self::MOST) {
            $problems->refuse(
                'paste',
                sprintf('%s rows were pasted; at most %s go at once.', number_format(count($rows)), self::MOST),
            );

            return new self([]);
        }
        $divider = str_contains($text, "\t") ? "\t" : (str_contains($text, ';') ? ';' : ',');
        $lines = [];
        foreach ($rows as $i => $row) {
            if ('' === trim($row)) {
                continue;
            }
            $line = $problems->attempt(
                'paste-'.($i + 1),
                static fn (): PastedLine => self::line($i + 1, explode($divider, $row), $numerals),
            );
            if (null !== $line) {
                $lines[] = $line;
            }
        }

        return new self($lines);
    }

    /**
     * @param list<string> $cells
     *
     * @throws InvalidValue
     */
    private static function line(int $row, array $cells, Numerals $numerals): PastedLine
    {
        $cells = array_map(static fn (string $cell): string => trim($cell, " \t\"\u{a0}"), $cells);
        if (count($cells) > self::COLUMNS) {
            throw InvalidValue::because(
                sprintf('It has %d columns; expected code, packs, price, day, site.', count($cells)),
            );
        }
        [$code, $packs, $price, $day, $site] = array_pad($cells, self::COLUMNS, '');
        if ('' === $code || '' === $packs) {
            throw InvalidValue::because('It needs a code and how many packs.');
        }

        return new PastedLine(
            $row,
            $code,
            self::packs($packs, $numerals),
            '' === $price ? null : $numerals->price($price),
            '' === $day ? null : Day::read($day),
            '' === $site ? null : $site,
        );
    }

    /** @throws InvalidValue unless it is above 0 */
    private static function packs(string $typed, Numerals $numerals): BigDecimal
    {
        $packs = $numerals->quantity($typed);
        if (!$packs->isPositive()) {
            throw InvalidValue::because(sprintf('“%s” packs; expected above 0.', $typed));
        }

        return $packs;
    }
}
