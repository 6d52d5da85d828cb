<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Core\InvalidValue;

/**
 * A workbook after ISO/IEC 29500 (.xlsx), read sheet by sheet and row by row, without its formulas: what counts is what
 * they came to. Days are written as 2026-11-30, numbers with a point.
 */
final class Workbook
{
    private const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    private const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    private const MOST_BYTES = 600_000_000;
    private const MOST_ROWS = 300_000;
    private const MOST_COLUMNS = 200;
    private const MOST_SHEETS = 100;
    /** Built-in formats of days and times, ISO/IEC 29500-1, 18.8.30. */
    private const DAYS = [14, 15, 16, 17, 22];

    private \ZipArchive $archive;
    /** @var array<string, string> path in the archive by the name of the sheet */
    private array $sheets = [];
    /** @var array<int, bool> whether a style shows a day, by its number */
    private array $days = [];
    /** @var list<string>|null */
    private ?array $words = null;
    /** Days between the two ways of counting them. */
    private int $shift = 0;

    private function __construct()
    {
        $this->archive = new \ZipArchive();
    }

    public static function isOne(string $path): bool
    {
        return str_starts_with((string) file_get_contents($path, length: 4), "PK\x03\x04");
    }

    /** @throws InvalidValue if it is none, or too large once unpacked */
    public static function open(string $path): self
    {
        $book = new self();
        if (true !== $book->archive->open($path, \ZipArchive::RDONLY)) {
            throw InvalidValue::because(
                'This is neither a CSV file nor a workbook (.xlsx) that can be opened; perhaps it is damaged.',
            );
        }
        $bytes = 0;
        for ($i = 0; $i < $book->archive->numFiles; ++$i) {
            $bytes += $book->archive->statIndex($i)['size'] ?? 0;
        }
        if ($bytes > self::MOST_BYTES) {
            throw InvalidValue::because('Unpacked, the file is larger than 600 MB. Save the sheet as CSV and bring '
                .'that.');
        }
        if (false === $book->archive->locateName('xl/workbook.xml')) {
            throw InvalidValue::because(
                'This is neither a CSV file nor a workbook (.xlsx). Save it as one of these and bring that.',
            );
        }
        $book->readSheets();
        $book->readStyles();

        return $book;
    }

    /** @return list<string> names, in their order */
    public function sheets(): array
    {
        return array_map(strval(...), array_keys($this->sheets));
    }

    /**
     * @return iterable<int, list<string>> cells by row number; rows without anything are left out
     *
     * @throws InvalidValue for a sheet that is not there, or has too many rows
     */
    public function rows(string $sheet): iterable
    {
        $path = $this->sheets[$sheet] ?? throw InvalidValue::because(
            sprintf('There is no sheet “%s”; there is %s.', $sheet, implode(', ', $this->sheets())),
        );
        $this->words ??= $this->readWords();
        $xml = $this->reader($path);
        $number = $count = 0;
        while ($xml->read()) {
            if (\XMLReader::ELEMENT !== $xml->nodeType || 'row' !== $xml->localName) {
                continue;
            }
            $number = (int) ($xml->getAttribute('r') ?? $number + 1);
            $cells = $xml->isEmptyElement ? [] : $this->cells($xml);
            if ([] !== $cells && '' !== implode('', $cells)) {
                if (++$count > self::MOST_ROWS) {
                    throw InvalidValue::because(sprintf(
                        'The sheet has more than %s rows. Split it, by year for example, or save it as CSV.',
                        number_format(self::MOST_ROWS),
                    ));
                }
                yield $number => $cells;
            }
        }
    }

    /** @return list<string> */
    private function cells(\XMLReader $xml): array
    {
        $cells = [];
        $column = -1;
        $depth = $xml->depth;
        while ($xml->read() && $xml->depth > $depth) {
            if (\XMLReader::ELEMENT !== $xml->nodeType || 'c' !== $xml->localName) {
                continue;
            }
            $place = $xml->getAttribute('r');
            $column = null === $place ? $column + 1 : self::column($place);
            if ($column >= self::MOST_COLUMNS) {
                throw InvalidValue::because(
                    sprintf('The sheet has more than %d columns; leave out those that are not needed.',
                        self::MOST_COLUMNS),
                );
            }
            [$type, $style] = [(string) $xml->getAttribute('t'), (int) $xml->getAttribute('s')];
            $value = $xml->isEmptyElement ? '' : $this->value($xml, $type, $style);
            while (count($cells) < $column) {
                $cells[] = '';
            }
            $cells[$column] = $value;
        }

        return array_values($cells);
    }

    private function value(\XMLReader $xml, string $type, int $style): string
    {
        $raw = $formula = null;
        $inline = '';
        $depth = $xml->depth;
        while ($xml->read() && $xml->depth > $depth) {
            if (\XMLReader::ELEMENT !== $xml->nodeType || $xml->isEmptyElement) {
                continue;
            }
            if ('v' === $xml->localName) {
                $raw = $xml->readString();
            } elseif ('f' === $xml->localName) {
                $formula = $xml->readString();
            } elseif ('t' === $xml->localName) {
                $inline .= $xml->readString();
            }
        }
        if (null === $raw && null !== $formula && '' === $inline) {
            // A program that never worked it out wrote this file; what it would come to is not known.
            return '='.$formula;
        }

        return match ($type) {
            's' => $this->words[(int) $raw] ?? '',
            'inlineStr' => $inline,
            'b' => '1' === $raw ? 'yes' : 'no',
            'str', 'e', 'd' => (string) $raw,
            default => $this->number((string) $raw, $style),
        };
    }

    private function number(string $raw, int $style): string
    {
        if (!is_numeric($raw)) {
            return $raw;
        }
        if ($this->days[$style] ?? false) {
            $days = (int) floor((float) $raw) + $this->shift;

            return $days > 0 && $days < 2_958_466
                ? (new \DateTimeImmutable('1899-12-30'))->modify(sprintf('+%d days', $days))->format('Y-m-d')
                : $raw;
        }

        // As people see it: fifteen figures count, and none of them as a power of ten.
        $text = 1 === preg_match('/e/i', $raw) || strlen($raw) > 15 ? sprintf('%.15G', (float) $raw) : $raw;
        if (str_contains($text, 'E')) {
            $text = rtrim(rtrim(number_format((float) $raw, 12, '.', ''), '0'), '.');
        }

        return $text;
    }

    private static function column(string $place): int
    {
        $number = 0;
        foreach (str_split((string) preg_replace('/[^A-Z].*$/', '', strtoupper($place))) as $letter) {
            $number = 26 * $number + ord($letter) - 64;
        }

        return $number - 1;
    }

    private function readSheets(): void
    {
        $targets = [];
        foreach ($this->elements('xl/_rels/workbook.xml.rels', 'Relationship') as $one) {
            $target = $one->getAttribute('Target');
            $targets[$one->getAttribute('Id')] = str_starts_with($target, '/') ? substr($target, 1) : 'xl/'.$target;
        }
        foreach ($this->elements('xl/workbook.xml', 'workbookPr') as $one) {
            // Some count from 1904 on.
            $this->shift = in_array($one->getAttribute('date1904'), ['1', 'true'], true) ? 1462 : 0;
        }
        foreach ($this->elements('xl/workbook.xml', 'sheet') as $one) {
            $path = $targets[$one->getAttributeNS(self::RELATIONS, 'id')] ?? '';
            if (count($this->sheets) < self::MOST_SHEETS && false !== $this->archive->locateName($path)) {
                $this->sheets[$one->getAttribute('name')] = $path;
            }
        }
        if ([] === $this->sheets) {
            throw InvalidValue::because('The workbook has no sheet with cells.');
        }
    }

    private function readStyles(): void
    {
        if (false === $this->archive->locateName('xl/styles.xml')) {
            return;
        }
        $own = [];
        foreach ($this->elements('xl/styles.xml', 'numFmt') as $one) {
            $format = (string) preg_replace('/"[^"]*"|\\\\.|\[[^\]]*\]/', '', $one->getAttribute('formatCode'));
            $own[(int) $one->getAttribute('numFmtId')] = 1 === preg_match('/[dy]/i', $format);
        }
        foreach ($this->elements('xl/styles.xml', 'cellXfs') as $all) {
            foreach ($all->getElementsByTagNameNS(self::MAIN, 'xf') as $i => $one) {
                $format = (int) $one->getAttribute('numFmtId');
                $this->days[$i] = $own[$format] ?? in_array($format, self::DAYS, true);
            }
        }
    }

    /** @return list<string> texts that cells share */
    private function readWords(): array
    {
        if (false === $this->archive->locateName('xl/sharedStrings.xml')) {
            return [];
        }
        $words = [];
        $xml = $this->reader('xl/sharedStrings.xml');
        $more = $xml->read();
        while ($more) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'si' === $xml->localName) {
                $text = '';
                $depth = $xml->depth;
                while (!$xml->isEmptyElement && $xml->read() && $xml->depth > $depth) {
                    // What is said above letters, to say how they are spoken, is no part of the text.
                    if (\XMLReader::ELEMENT === $xml->nodeType && 'rPh' === $xml->localName) {
                        $xml->next();
                    }
                    if (\XMLReader::ELEMENT === $xml->nodeType && 't' === $xml->localName) {
                        $text .= $xml->readString();
                    }
                }
                $words[] = $text;
            }
            $more = $xml->read();
        }

        return $words;
    }

    /** @return iterable<\DOMElement> of a small part of the workbook */
    private function elements(string $path, string $name): iterable
    {
        $content = (string) $this->archive->getFromName($path);
        $document = new \DOMDocument();
        if ('' === $content || str_contains($content, '<!DOCTYPE') || !@$document->loadXML($content, \LIBXML_NONET)) {
            throw InvalidValue::because('The workbook is damaged: a part of it cannot be read.');
        }
        foreach ($document->getElementsByTagNameNS('*', $name) as $element) {
            yield $element;
        }
    }

    private function reader(string $path): \XMLReader
    {
        $xml = \XMLReader::open('zip://'.$this->archive->filename.'#'.$path, null, \LIBXML_NONET | \LIBXML_COMPACT);
        if (!$xml instanceof \XMLReader) {
            throw InvalidValue::because('The workbook is damaged: a part of it cannot be read.');
        }

        return $xml;
    }
}
