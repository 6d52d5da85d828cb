<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Labels;

use TallBarrel\Work\Receiving\Label;
use TallBarrel\Work\Receiving\LabelPrinter;
use TallBarrel\Work\Receiving\LabelSheet;

/** Labels as PDF, drawn in millimetres. */
final readonly class TcpdfLabels implements LabelPrinter
{
    /** Height of A4. */
    private const PAGE = 297.0;
    private const MARGIN = 3.0;
    private const GAP = 2.0;
    private const FONT = 'dejavusans';
    /** Of the DataMatrix, with its quiet zone of one module around. */
    private const SQUARE = 17.0;
    private const BARS = 11.0;
    /** Millimetres from which GS1-128 has room beside the square. */
    private const WIDE = 100.0;
    /** As the library wants FNC1 for Code 128. */
    private const FNC1 = "\xF1";
    /** Characters of a title that is written large. */
    private const SHORT = 10;

    public function print(array $labels, LabelSheet $sheet, int $used): string
    {
        [$width, $height] = $sheet->size();
        $isSingle = LabelSheet::Single === $sheet;
        $pdf = new \TCPDF($isSingle ? 'L' : 'P', 'mm', $isSingle ? [$width, $height] : 'A4', true, 'UTF-8');
        $pdf->setPrintHeader(false);
        $pdf->setPrintFooter(false);
        $pdf->setMargins(0, 0, 0);
        $pdf->setAutoPageBreak(false);
        $pdf->setCreator('Tall Barrel');
        $pdf->setTitle('Labels');
        $perPage = $sheet->columns() * $sheet->rows();
        $place = $used % $perPage;
        $pdf->AddPage();
        $top = $isSingle ? 0.0 : (self::PAGE - $sheet->rows() * $height) / 2;
        foreach ($labels as [$label, $many]) {
            for ($n = 0; $n < $many; ++$n) {
                if ($place === $perPage) {
                    $pdf->AddPage();
                    $place = 0;
                }
                $this->draw(
                    $pdf,
                    $label,
                    ($place % $sheet->columns()) * $width,
                    $top + intdiv($place, $sheet->columns()) * $height,
                    $width,
                    $height,
                );
                ++$place;
            }
        }

        return $pdf->Output('labels.pdf', 'S');
    }

    private function draw(\TCPDF $pdf, Label $label, float $x, float $y, float $width, float $height): void
    {
        $inner = $width - 2 * self::MARGIN;
        $square = null === $label->gs1 ? 0.0 : min(self::SQUARE, $height - 2 * self::MARGIN - 3);
        $words = $inner - ($square > 0 ? $square + self::GAP : 0);
        // The code of a bin is read from afar.
        $pdf->setFont(self::FONT.'b', '', mb_strlen($label->title) <= self::SHORT ? 16 : 9);
        $pdf->setXY($x + self::MARGIN, $y + self::MARGIN);
        // Two lines at most: what is longer is cut, not run into the symbol.
        $title = $label->title;
        while ($pdf->getNumLines($title, $words) > 2) {
            $title = rtrim(mb_substr($title, 0, -2), '… ').'…';
        }
        $pdf->MultiCell($words, 4, $title, 0, 'L', false, 1, $x + self::MARGIN);
        $pdf->setFont(self::FONT, '', 7);
        foreach ($label->lines as $line) {
            $pdf->setX($x + self::MARGIN);
            $pdf->Cell($words, 3.2, $line, 0, 2, 'L', false, '', 1);
        }
        if (null !== $label->gs1) {
            $this->matrix($pdf, $label, $x + $width - self::MARGIN - $square, $y + self::MARGIN, $square);
            $pdf->setFont(self::FONT, '', 5.5);
            $pdf->setXY($x + self::MARGIN, $y + $height - self::MARGIN - 2.5);
            $pdf->Cell($inner, 2.5, $label->gs1->readable(), 0, 0, 'R', false, '', 1);
            if ($width >= self::WIDE) {
                $pdf->write1DBarcode(
                    self::FNC1.$label->gs1->carried(self::FNC1),
                    'C128',
                    $x + self::MARGIN,
                    $y + $height - self::MARGIN - self::BARS - 20,
                    $inner,
                    20,
                    0.25,
                    ['text' => false, 'position' => '', 'fitwidth' => true, 'hpadding' => 0, 'vpadding' => 0],
                    'N',
                );
            }
        } elseif ('' !== $label->plain) {
            $isEan = 1 === preg_match('/^\d{13}$/', $label->plain);
            $pdf->write1DBarcode(
                $label->plain,
                $isEan ? 'EAN13' : 'C128',
                $x + self::MARGIN,
                $y + $height - self::MARGIN - self::BARS,
                $inner,
                self::BARS,
                $isEan ? 0.33 : 0.3,
                ['text' => true, 'font' => self::FONT, 'fontsize' => 6.5, 'stretchtext' => 0, 'fitwidth' => true,
                    'position' => '', 'align' => 'L', 'hpadding' => 0, 'vpadding' => 0],
                'N',
            );
        }
    }

    private function matrix(\TCPDF $pdf, Label $label, float $x, float $y, float $square): void
    {
        $rows = (new Gs1DataMatrix($label->gs1?->carried("\x1D") ?? ''))->modules();
        if ([] === $rows) {
            return;
        }
        $module = $square / (max(count($rows), count($rows[0])) + 2);
        $pdf->setFillColor(0, 0, 0);
        foreach ($rows as $r => $row) {
            foreach ($row as $c => $dark) {
                if ($dark) {
                    $pdf->Rect($x + ($c + 1) * $module, $y + ($r + 1) * $module, $module, $module, 'F');
                }
            }
        }
    }
}
