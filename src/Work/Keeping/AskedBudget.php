<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\BudgetBasis;

/** What the owner lets be spent, home currency. */
final readonly class AskedBudget
{
    /**
     * @param BigDecimal|null                    $usual      of a month; null for no limit
     * @param array<string, BigDecimal|null>     $months     by month, as 2026-12; null for as usual
     * @param array<int|string, BigDecimal|null> $categories by category, in any month; null for no limit of its own
     * @param BudgetBasis                        $basis      the month in which money counts
     */
    public function __construct(
        public ?BigDecimal $usual,
        public array $months,
        public array $categories,
        public BudgetBasis $basis,
    ) {
    }

    /** The same for the same figures: what a page showed, to see whether somebody changed it meanwhile. */
    public function fingerprint(): string
    {
        $plain = static fn (?BigDecimal $figure): ?string => null === $figure
            ? null
            : (string) $figure->strippedOfTrailingZeros();
        $categories = $this->categories;
        ksort($categories);

        return hash('xxh64', serialize([
            $plain($this->usual),
            array_map($plain, $this->months),
            array_map($plain, $categories),
            $this->basis->value,
        ]));
    }
}
