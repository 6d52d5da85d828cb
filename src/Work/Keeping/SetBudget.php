<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Business\CategoryBudget;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\MonthBudget;

/** What may be spent in a usual month, in single months that are not usual, and on single categories. */
final readonly class SetBudget
{
    public function __construct(private EntityManagerInterface $entities, private CurrentBusiness $business)
    {
    }

    /**
     * @param string|null $was      fingerprint of what the person was shown; somebody else's change since is refused
     *      once, and told
     * @param Problems    $problems by month, category (see place()), or "usual"
     */
    public function set(AskedBudget $asked, ?string $was, Problems $problems): void
    {
        $limits = [];
        foreach ($asked->categories as $category => $amount) {
            $limits[self::place((string) $category)] = $amount;
        }
        foreach (['usual' => $asked->usual, ...$asked->months, ...$limits] as $place => $amount) {
            if (null !== $amount) {
                $problems->attempt($place, static fn (): BigDecimal => MonthBudget::allowed($amount));
            }
        }
        if (!$problems->areNone()) {
            return;
        }
        $this->entities->wrapInTransaction(function () use ($asked, $was, $problems): void {
            // Two at once come one after the other.
            $this->entities->getConnection()->fetchOne('SELECT id FROM business FOR UPDATE');
            if (null !== $was && $was !== $this->known($asked)->fingerprint()) {
                $problems->refuse(
                    '',
                    'Somebody changed the budget while you had it open. Save again to have it as here.',
                );

                return;
            }
            $business = $this->business->get();
            $business->spendMonthly($asked->usual);
            $business->countBudget($asked->basis);
            foreach ($asked->months as $month => $amount) {
                $this->keep(MonthBudget::class, $month, $amount);
            }
            foreach ($asked->categories as $category => $amount) {
                $this->keep(CategoryBudget::class, (string) $category, $amount);
            }
        });
    }

    /** The name under which a category's problems stand. */
    public static function place(string $category): string
    {
        return 'c'.hash('crc32b', $category);
    }

    /** What stands in the database now, of the same months and categories. */
    private function known(AskedBudget $asked): AskedBudget
    {
        $connection = $this->entities->getConnection();
        $read = static fn (mixed $amount): ?BigDecimal => is_string($amount) ? BigDecimal::of($amount) : null;
        $business = $connection->fetchAssociative('SELECT monthly_budget, budget_basis FROM business');
        $months = $connection->fetchAllKeyValue('SELECT month, amount FROM month_budget');
        $categories = $connection->fetchAllKeyValue('SELECT category, amount FROM category_budget');
        $knownMonths = $knownCategories = [];
        foreach (array_keys($asked->months) as $month) {
            $knownMonths[$month] = $read($months[$month] ?? null);
        }
        foreach (array_keys($asked->categories) as $category) {
            $knownCategories[$category] = $read($categories[$category] ?? null);
        }
        $basis = $business['budget_basis'] ?? null;

        return new AskedBudget(
            $read($business['monthly_budget'] ?? null),
            $knownMonths,
            $knownCategories,
            is_string($basis) ? BudgetBasis::from($basis) : BudgetBasis::Ordering,
        );
    }

    /** @param class-string<MonthBudget>|class-string<CategoryBudget> $class */
    private function keep(string $class, string $name, ?BigDecimal $amount): void
    {
        $known = $this->entities->find($class, $name);
        if (null === $amount) {
            if (null !== $known) {
                $this->entities->remove($known);
            }
        } elseif (null !== $known) {
            $known->change($amount);
        } else {
            $this->entities->persist(new $class($name, $amount));
        }
    }
}
