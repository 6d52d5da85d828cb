<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Store\Type\BigDecimalType;

/** One side of a booked entry: above zero it is a debit, below a credit. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'booked_line')]
class BookedLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly BookedEntry $entry,
        #[ORM\Column(length: 20, enumType: LedgerAccount::class)] public readonly LedgerAccount $account,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $amount,
    ) {
    }
}
