<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use Symfony\Component\DependencyInjection\Attribute\AsAlias;
use TallBarrel\Core\Settling\Paper\PaperInvoice;
use TallBarrel\Exchange\Csv\InvoiceCsv;
use TallBarrel\Exchange\Ubl\UblInvoice;
use TallBarrel\Work\Settling\PaperReader;

/** Whatever an invoice came as: XML begins with an angle bracket, everything else is a table. */
#[AsAlias(PaperReader::class)]
final readonly class AnyPaper implements PaperReader
{
    public function __construct(private UblInvoice $xml, private InvoiceCsv $table)
    {
    }

    public function read(string $name, string $bytes): PaperInvoice
    {
        $start = ltrim(substr($bytes, 0, 200), "\xEF\xBB\xBF \t\r\n");

        return '' === $start || str_starts_with($start, '<')
            ? $this->xml->read($name, $bytes)
            : $this->table->read($name, $bytes);
    }
}
