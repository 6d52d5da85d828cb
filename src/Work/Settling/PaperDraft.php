<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Settling\Paper\PaperInvoice;

/** What a file says, laid beside what was ordered: the invoice as somebody would have typed it. */
final readonly class PaperDraft
{
    /**
     * @param array<int, array{BigDecimal, BigDecimal, BigDecimal}>        $lines   packs, price of one and percent of
     *                                                                              tax, by order line
     * @param list<array{string, BigDecimal, BigDecimal, bool}>            $charges words, amount, percent of tax, and
     *                                                                              whether it is goods nobody ordered
     * @param list<string>                                                 $notes   what somebody should look at
     */
    public function __construct(
        public PaperInvoice $paper,
        public array $lines,
        public array $charges,
        public array $notes,
    ) {
    }
}
