<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

/** Puts labels on paper. */
interface LabelPrinter
{
    /**
     * @param list<array{Label, int}> $labels each with how many of it
     * @param int                     $used   labels that are gone from the first sheet already
     *
     * @return string a PDF
     */
    public function print(array $labels, LabelSheet $sheet, int $used): string;
}
