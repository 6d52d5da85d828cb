<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Store\Type\BigDecimalType;

/** A rate of tax by the name people call it, from a day on until the next one of that name. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'tax_rate_from', columns: ['name', 'from_day'])]
class TaxRate
{
    public const LONGEST = 30;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 2, enumType: TaxCategory::class)]
    public readonly TaxCategory $category;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    public readonly BigDecimal $percent;

    /** @throws InvalidValue without a name, or if the name could be read as a rate */
    public function __construct(
        #[ORM\Column(length: self::LONGEST)] public readonly string $name,
        Tax $tax,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $fromDay,
    ) {
        if (1 !== preg_match('/^\p{L}[\p{L}\p{N} .-]{0,29}$/u', $name)) {
            throw InvalidValue::because(sprintf(
                '“%s” cannot be the name of a tax rate; expected up to %d letters, such as “standard”.',
                $name,
                self::LONGEST,
            ));
        }
        $this->category = $tax->category;
        $this->percent = $tax->percent;
    }

    public function tax(): Tax
    {
        return Tax::of($this->category, $this->percent);
    }
}
