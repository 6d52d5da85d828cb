<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\InvalidValue;

/**
 * A series of values from a file: a CSV of one value a line, or JSON with "history" and perhaps "period" and "horizon".
 */
final readonly class SeriesFile
{
    private const MOST_BYTES = 4 * 1048576;

    /** @param list<?float> $history null where a value is unknown */
    private function __construct(public array $history, public ?int $period, public ?int $horizon)
    {
    }

    /** @throws InvalidValue naming the line or entry and its value */
    public static function read(string $path): self
    {
        if (!is_file($path) || !is_readable($path)) {
            throw InvalidValue::because(sprintf('There is no readable file “%s”.', $path));
        }
        if (filesize($path) > self::MOST_BYTES) {
            throw InvalidValue::because(sprintf('“%s” is larger than %d MB.', $path, self::MOST_BYTES / 1048576));
        }
        $text = (string) file_get_contents($path);
        $text = str_starts_with($text, "\u{FEFF}") ? substr($text, 3) : $text;
        $series =
            str_starts_with(ltrim($text), '{') || str_starts_with(ltrim($text), '[')
                ? self::json($text, $path)
                : self::csv($text);
        if ([] === array_filter($series->history, static fn (?float $value): bool => null !== $value)) {
            throw InvalidValue::because(sprintf('“%s” holds no value.', $path));
        }

        return $series;
    }

    private static function json(string $text, string $path): self
    {
        try {
            $data = json_decode($text, true, 16, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw InvalidValue::because(sprintf('“%s” is not JSON: %s.', $path, $broken->getMessage()));
        }
        $data = is_array($data) && array_is_list($data) ? ['history' => $data] : $data;
        if (!is_array($data) || !is_array($data['history'] ?? null)) {
            throw InvalidValue::because('“history” is missing; expected a list of numbers.');
        }
        $history = [];
        foreach (array_values($data['history']) as $i => $value) {
            if (null !== $value && !is_int($value) && !is_float($value)) {
                throw InvalidValue::because(
                    sprintf(
                        'Entry %d of “history” is %s; expected a number, or null where it is unknown.',
                        $i + 1,
                        (string) json_encode($value),
                    ),
                );
            }
            $history[] = null === $value ? null : (float) $value;
        }

        return new self($history, self::whole($data, 'period'), self::whole($data, 'horizon'));
    }

    private static function csv(string $text): self
    {
        $lines = preg_split('/\r\n|\n|\r/', rtrim($text)) ?: [];
        $history = [];
        foreach ($lines as $i => $line) {
            $value = trim($line, " \t\";,");
            if (0 === $i && '' !== $value && !is_numeric($value) && 1 !== preg_match('/\d/', $value)) {
                continue;
            }
            if ('' === $value || in_array(strtoupper($value), ['NA', 'NULL'], true)) {
                $history[] = null;
                continue;
            }
            if (!is_numeric($value) || !is_finite((float) $value)) {
                throw InvalidValue::because(
                    sprintf(
                        'Line %d holds “%s”; expected one number, or nothing where it is unknown.',
                        $i + 1,
                        mb_substr($value, 0, 60),
                    ),
                );
            }
            $history[] = (float) $value;
        }

        return new self($history, null, null);
    }

    /** @param array<mixed> $data */
    private static function whole(array $data, string $name): ?int
    {
        $value = $data[$name] ?? null;
        if (null !== $value && !is_int($value)) {
            throw InvalidValue::because(
                sprintf('“%s” is %s; expected a whole number.', $name, (string) json_encode($value)),
            );
        }

        return $value;
    }
}
