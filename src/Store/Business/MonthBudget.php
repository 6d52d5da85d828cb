<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Type\BigDecimalType;

/** What may be ordered in one month, where it is not the usual. */
#[ORM\Entity]
#[ORM\Table(name: 'month_budget')]
class MonthBudget
{
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)]
    private BigDecimal $amount;

    /**
     * @param string $month as 2026-11
     *
     * @throws InvalidValue
     */
    public function __construct(
        #[ORM\Id, ORM\Column(length: 7, options: ['fixed' => true])] public readonly string $month,
        BigDecimal $amount,
    ) {
        $this->change($amount);
    }

    /** @throws InvalidValue below zero, or more than a business could spend */
    public function change(BigDecimal $amount): void
    {
        $this->amount = self::allowed($amount);
    }

    public function amount(): BigDecimal
    {
        return $this->amount;
    }

    /** @throws InvalidValue */
    public static function allowed(BigDecimal $amount): BigDecimal
    {
        if ($amount->isNegative() || $amount->isGreaterThan(999_999_999)) {
            throw InvalidValue::because(
                sprintf('A budget of %s is out of range; expected 0 to 999999999, or nothing.', $amount),
            );
        }

        return $amount;
    }
}
