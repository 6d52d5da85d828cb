<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Supplier\Supplier;

/** A credit note as it was typed. */
final readonly class AskedCredit
{
    /**
     * @param array<string, array{string, BigDecimal, BigDecimal}> $lines words, amount before tax and percent of tax,
     *                                                                    by what each answers: the key of an expected
     *                                                                    credit, or a place of its own
     * @param BigDecimal|null                                      $total with tax on the paper, to check the lines by
     * @param string                                               $key   of the form
     */
    public function __construct(
        public Supplier $supplier,
        public string $number,
        public ?\DateTimeImmutable $day,
        public array $lines,
        public ?BigDecimal $total,
        public string $key,
    ) {
    }
}
