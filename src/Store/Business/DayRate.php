<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Type\BigDecimalType;

/** An exchange rate of a day: how many of the currency one of the home currency buys. */
#[ORM\Entity]
#[ORM\Table(name: 'exchange_rate')]
class DayRate
{
    public function __construct(
        #[ORM\Id, ORM\Column(length: 3)] public readonly string $currency,
        #[ORM\Id, ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 8)] public readonly BigDecimal $foreignForOne,
        /** Where it comes from: a file, the daily feed. */
        #[ORM\Column(length: 40, options: ['default' => ''])] public readonly string $source = '',
    ) {
    }
}
