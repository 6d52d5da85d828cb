<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Work\Keeping\AskedBudget;
use TallBarrel\Work\Keeping\SetBudget;

/** Budgets as they are typed, in the home currency. */
final class BudgetEntry
{
    /**
     * @param BigDecimal|null                $usual  null for none
     * @param array<string, BigDecimal|null> $months by month, as 2026-12; null for as usual
     * @param array<string, BigDecimal|null> $limits of categories, by the name of their field
     * @param array<string, string>          $names  of categories, by the name of their field
     * @param string|null                    $was    what the page showed
     */
    private function __construct(
        public ?BigDecimal $usual,
        public array $months,
        public array $limits,
        private readonly array $names,
        public BudgetBasis $basis,
        public ?string $was,
    ) {
    }

    public static function of(AskedBudget $known): self
    {
        $limits = $names = [];
        foreach ($known->categories as $category => $amount) {
            $field = SetBudget::place((string) $category);
            $limits[$field] = $amount;
            $names[$field] = (string) $category;
        }

        return new self($known->usual, $known->months, $limits, $names, $known->basis, $known->fingerprint());
    }

    /** @return array<string, string> category by the name of its field */
    public function categoryFields(): array
    {
        return $this->names;
    }

    public function asked(): AskedBudget
    {
        $categories = [];
        foreach ($this->names as $field => $category) {
            $categories[$category] = $this->limits[$field] ?? null;
        }

        return new AskedBudget($this->usual, $this->months, $categories, $this->basis);
    }
}
