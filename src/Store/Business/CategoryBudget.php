<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Type\BigDecimalType;

/** What may be ordered of a category of items in any month, within the month's budget. */
#[ORM\Entity]
#[ORM\Table(name: 'category_budget')]
class CategoryBudget
{
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)]
    private BigDecimal $amount;

    /** @throws InvalidValue */
    public function __construct(#[ORM\Id, ORM\Column(length: 60)] public readonly string $category, BigDecimal $amount)
    {
        $this->change($amount);
    }

    /** @throws InvalidValue */
    public function change(BigDecimal $amount): void
    {
        $this->amount = MonthBudget::allowed($amount);
    }

    public function amount(): BigDecimal
    {
        return $this->amount;
    }
}
