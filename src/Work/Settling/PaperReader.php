<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Settling\Paper\PaperInvoice;

/** Reads an invoice from a file of some open form; what it asks for is not yet weighed. */
interface PaperReader
{
    /**
     * @param string $name as the file was called
     *
     * @throws InvalidValue if it is no invoice, or cannot be read
     */
    public function read(string $name, string $bytes): PaperInvoice;
}
