<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Core\InvalidValue;

/** How a table that somebody brings is written: in which letters, with what between its cells, on which sheet. */
final readonly class FileLayout
{
    public const ENCODINGS = ['UTF-8', 'UTF-16LE', 'UTF-16BE', 'Windows-1252'];
    public const DELIMITERS = [',', ';', "\t", '|'];
    private const MARKS = ["\xEF\xBB\xBF" => 'UTF-8', "\xFF\xFE" => 'UTF-16LE', "\xFE\xFF" => 'UTF-16BE'];
    private const LOOKED_AT = 262_144;

    /** @param list<string> $sheets there are, of a workbook */
    private function __construct(
        public string $encoding,
        public string $delimiter,
        public string $sheet = '',
        public array $sheets = [],
    ) {
    }

    /**
     * Guessed from the file, but for what somebody chose.
     *
     * @param array<string, string> $chosen encoding, delimiter, sheet
     *
     * @throws InvalidValue if it is no table at all
     */
    public static function of(string $path, array $chosen = []): self
    {
        $head = (string) file_get_contents($path, length: self::LOOKED_AT);
        if ('' === trim($head)) {
            throw InvalidValue::because('The file is empty.');
        }
        if (Workbook::isOne($path)) {
            $sheets = Workbook::open($path)->sheets();
            $sheet = $chosen['sheet'] ?? '';

            return new self('UTF-8', ',', in_array($sheet, $sheets, true) ? $sheet : $sheets[0], $sheets);
        }
        $encoding = in_array($chosen['encoding'] ?? '', self::ENCODINGS, true)
            ? $chosen['encoding']
            : self::encodingOf($head);
        $text = self::inUtf8($head, $encoding);
        if (str_starts_with($head, '%PDF') || 1 === preg_match('/[\x00-\x08\x0E-\x1A\x1C-\x1F]/', $text)) {
            throw InvalidValue::because(
                'This is neither a CSV file nor a workbook (.xlsx) but something else, a PDF or a picture perhaps.',
            );
        }
        $delimiter = $chosen['delimiter'] ?? '';

        return new self(
            $encoding,
            in_array($delimiter, self::DELIMITERS, true) ? $delimiter : self::delimiterOf($text),
        );
    }

    public function isPlain(string $path): bool
    {
        return '' === $this->sheet && 'UTF-8' === $this->encoding && !Workbook::isOne($path);
    }

    /** @return array<string, string> */
    public function chosen(): array
    {
        return ['encoding' => $this->encoding, 'delimiter' => $this->delimiter, 'sheet' => $this->sheet];
    }

    /** @param bool $begins whether these are the first bytes, that may say in which letters it is written */
    public static function inUtf8(string $bytes, string $encoding, bool $begins = true): string
    {
        foreach ($begins ? self::MARKS : [] as $mark => $of) {
            if ($encoding === $of && str_starts_with($bytes, $mark)) {
                $bytes = substr($bytes, strlen($mark));
            }
        }
        if ('UTF-8' === $encoding) {
            return $bytes;
        }
        // Half a letter at the end of what was looked at is none.
        $bytes = str_starts_with($encoding, 'UTF-16') && 1 === strlen($bytes) % 2 ? substr($bytes, 0, -1) : $bytes;

        return (string) mb_convert_encoding($bytes, 'UTF-8', $encoding);
    }

    private static function encodingOf(string $head): string
    {
        foreach (self::MARKS as $mark => $encoding) {
            if (str_starts_with($head, $mark)) {
                return $encoding;
            }
        }
        $sample = substr($head, 0, 4000);
        $zeros = [0, 0];
        for ($i = 0; $i < strlen($sample); ++$i) {
            $zeros[$i % 2] += "\0" === $sample[$i] ? 1 : 0;
        }
        // Most letters of a table are Latin: every other byte of UTF-16 is nought.
        if ($zeros[0] + $zeros[1] > strlen($sample) / 5) {
            return $zeros[1] > $zeros[0] ? 'UTF-16LE' : 'UTF-16BE';
        }
        // A letter cut in two at the end does not count.
        if (mb_check_encoding($head, 'UTF-8') || mb_check_encoding(substr($head, 0, -3), 'UTF-8')) {
            return 'UTF-8';
        }

        // Letters of UTF-8 among bytes that are none: a line of another file got in, and is named.
        return 1 === preg_match('/[\xC3-\xC5][\x80-\xBF]|\xE2\x82\xAC/', $head) ? 'UTF-8' : 'Windows-1252';
    }

    /** What divides the first lines into the same number of cells, more than one. */
    private static function delimiterOf(string $text): string
    {
        $lines = array_slice(preg_split('/\R/', $text) ?: [], 0, 20);
        $lines = array_values(array_filter($lines, static fn (string $line): bool => '' !== trim($line)));
        $best = [',', -1.0];
        foreach (self::DELIMITERS as $delimiter) {
            $counts = array_map(
                static fn (string $line): int => count(str_getcsv($line, $delimiter, '"', '')),
                $lines,
            );
            $first = $counts[0] ?? 1;
            $same = count(array_filter($counts, static fn (int $count): bool => $count === $first));
            $score = $first < 2 ? 0.0 : $first * $same / max(1, count($counts));
            if ($score > $best[1]) {
                $best = [$delimiter, $score];
            }
        }

        return $best[0];
    }
}
