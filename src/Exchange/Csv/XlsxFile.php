<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Work\Keeping\SheetFile;

/**
 * A workbook after ISO/IEC 29500 with one sheet. Cells are texts or numbers, never formulas, so nothing in them is ever
 * worked out.
 */
final readonly class XlsxFile implements SheetFile
{
    private const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    private const PACKAGE = 'http://schemas.openxmlformats.org/package/2006/';
    private const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    private const TYPES = 'application/vnd.openxmlformats-officedocument.spreadsheetml.';

    public function sheet(string $name, iterable $rows): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'sheet');
        $archive = new \ZipArchive();
        $archive->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach ($this->frame($name) as $part => $content) {
            $archive->addFromString($part, '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>'."\n".$content);
        }
        $archive->addFromString('xl/worksheets/sheet1.xml', $this->cells($rows));
        $archive->close();
        $bytes = (string) file_get_contents($path);
        unlink($path);

        return $bytes;
    }

    /** @return array<string, string> */
    private function frame(string $name): array
    {
        $name = htmlspecialchars(mb_substr((string) preg_replace('#[\\\\/?*:\[\]]#', ' ', $name), 0, 31), \ENT_XML1);

        return [
            '[Content_Types].xml' => '<Types xmlns="'.self::PACKAGE.'content-types">'
                .'<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
                .'<Default Extension="xml" ContentType="application/xml"/>'
                .'<Override PartName="/xl/workbook.xml" ContentType="'.self::TYPES.'sheet.main+xml"/>'
                .'<Override PartName="/xl/worksheets/sheet1.xml" ContentType="'.self::TYPES.'worksheet+xml"/>'
                .'</Types>',
            '_rels/.rels' => '<Relationships xmlns="'.self::PACKAGE.'relationships"><Relationship Id="r1" Type="'
                .self::OFFICE.'/officeDocument" Target="xl/workbook.xml"/></Relationships>',
            'xl/_rels/workbook.xml.rels' => '<Relationships xmlns="'.self::PACKAGE.'relationships">'
                .'<Relationship Id="r1" Type="'.self::OFFICE.'/worksheet" Target="worksheets/sheet1.xml"/>'
                .'</Relationships>',
            'xl/workbook.xml' => '<workbook xmlns="'.self::MAIN.'" xmlns:r="'.self::OFFICE.'"><sheets>'
                .'<sheet name="'.$name.'" sheetId="1" r:id="r1"/></sheets></workbook>',
        ];
    }

    /** @param iterable<list<string>> $rows */
    private function cells(iterable $rows): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->startDocument('1.0', 'UTF-8', 'yes');
        $xml->startElement('worksheet');
        $xml->writeAttribute('xmlns', self::MAIN);
        $xml->startElement('sheetData');
        $parts = '';
        $number = 0;
        foreach ($rows as $row) {
            $xml->startElement('row');
            $xml->writeAttribute('r', (string) ++$number);
            foreach ($row as $cell) {
                $xml->startElement('c');
                // Whole and decimal numbers as they are; what only looks like one (a code 007, a GTIN) is a text.
                if (1 === preg_match('/^-?(0|[1-9]\d{0,10})(\.\d{1,8})?$/', $cell)) {
                    $xml->writeElement('v', $cell);
                } else {
                    $xml->writeAttribute('t', 'inlineStr');
                    $xml->startElement('is');
                    $xml->startElement('t');
                    $xml->writeAttribute('xml:space', 'preserve');
                    $xml->text((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F]/', '', $cell));
                    $xml->endElement();
                    $xml->endElement();
                }
                $xml->endElement();
            }
            $xml->endElement();
            if (0 === $number % 1000) {
                $parts .= $xml->flush();
            }
        }
        $xml->endElement();
        $xml->endElement();
        $xml->endDocument();

        return $parts.$xml->flush();
    }
}
