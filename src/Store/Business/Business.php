<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Store\Type\BigDecimalType;

/** The one business this installation belongs to. */
#[ORM\Entity]
class Business
{
    public const ID = 1;

    #[ORM\Id, ORM\Column]
    public readonly int $id;

    /** What borrowed money costs, percent a year. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '7.00'])]
    private BigDecimal $moneyPercent;

    /** What the bank takes of a payment in a foreign currency, in percent. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '0.50'])]
    private BigDecimal $exchangePercent;

    /** What divides the whole from its part in a number: a point or a comma. */
    #[ORM\Column(length: 1, options: ['default' => '.'])]
    private string $decimalMark = Numerals::POINT;

    #[ORM\Column(length: 10, enumType: BudgetBasis::class, options: ['default' => 'ordering'])]
    private BudgetBasis $budgetBasis = BudgetBasis::Ordering;

    public function __construct(
        #[ORM\Column(length: 120)] public readonly string $name,
        #[ORM\Column(length: 200)] public readonly string $address,
        #[ORM\Column(length: 40)] public readonly string $taxNumber,
        #[ORM\Column(length: 3)] public readonly string $currency,
        /** Cost of placing and receiving one order line. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 2)] public readonly BigDecimal $orderCost,
        /** Cost of keeping stock for a year, in percent of its value. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)] public readonly BigDecimal $holdingPercent,
        /** What may usually be ordered in a month; null for no budget. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
        private ?BigDecimal $monthlyBudget,
    ) {
        $this->id = self::ID;
        $this->moneyPercent = BigDecimal::of(7);
        $this->exchangePercent = BigDecimal::of('0.5');
    }

    /** @throws InvalidValue unless both are from 0 to 60 */
    public function reckonWith(BigDecimal $moneyPercent, BigDecimal $exchangePercent): void
    {
        foreach ([$moneyPercent, $exchangePercent] as $percent) {
            if ($percent->isNegative() || $percent->isGreaterThan(60)) {
                throw InvalidValue::because(sprintf('“%s %%” a year is out of range; expected 0 to 60.', $percent));
            }
        }
        $this->moneyPercent = $moneyPercent;
        $this->exchangePercent = $exchangePercent;
    }

    /** @throws InvalidValue below zero */
    public function spendMonthly(?BigDecimal $budget): void
    {
        $this->monthlyBudget = null === $budget ? null : MonthBudget::allowed($budget);
    }

    /** In which month money counts as spent. */
    public function countBudget(BudgetBasis $basis): void
    {
        $this->budgetBasis = $basis;
    }

    public function budgetBasis(): BudgetBasis
    {
        return $this->budgetBasis;
    }

    public function monthlyBudget(): ?BigDecimal
    {
        return $this->monthlyBudget;
    }

    /** @throws InvalidValue unless it is a point or a comma */
    public function writeNumbersWith(string $decimalMark): void
    {
        $this->decimalMark = Numerals::with($decimalMark)->mark ?? Numerals::POINT;
    }

    public function decimalMark(): string
    {
        return $this->decimalMark;
    }

    public function moneyPercent(): BigDecimal
    {
        return $this->moneyPercent;
    }

    public function exchangePercent(): BigDecimal
    {
        return $this->exchangePercent;
    }

    public function costRates(): CostRates
    {
        return new CostRates(
            $this->moneyPercent->toFloat(),
            $this->holdingPercent->toFloat(),
            $this->exchangePercent->toFloat(),
        );
    }

    public function homeCurrency(): Currency
    {
        return Currency::of($this->currency);
    }
}
