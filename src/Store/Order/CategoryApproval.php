<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Type\BigDecimalType;

/** Who is asked where an order has much of one category, whatever the limit of whoever orders. */
#[ORM\Entity]
class CategoryApproval
{
    /** @throws InvalidValue below 0, or if the person may approve nothing */
    public function __construct(
        #[ORM\Id, ORM\Column(length: 60)] public readonly string $category,
        /** Before tax, in the home currency. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $above,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $asked,
    ) {
        if ($above->isNegative()) {
            throw InvalidValue::negative((string) $above, 'an amount of 0 or more');
        }
        if (!$asked->mayApprove()) {
            throw InvalidValue::because(sprintf('%s approves no orders.', $asked->name()));
        }
    }
}
