<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Type\BigDecimalType;

/** One amount of a credit note, and what it makes good. */
#[ORM\Entity]
#[ORM\Table(name: 'credit_note_line')]
class CreditNoteLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /**
     * @param InvoiceLine|null    $disputed a credit was asked for, and that much was never paid
     * @param SupplierReturn|null $back     goods that went back or were kept for less
     *
     * @param BigDecimal          $amount   below 0 for what lessens it
     *
     * @throws InvalidValue if the amount is 0, or below it for something in particular
     */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly CreditNote $note,
        #[ORM\Column] public readonly int $position,
        #[ORM\Column(length: 200)] public readonly string $words,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $amount,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)] public readonly BigDecimal $taxPercent,
        #[ORM\ManyToOne] public readonly ?InvoiceLine $disputed,
        #[ORM\ManyToOne] public readonly ?SupplierReturn $back,
    ) {
        if ($amount->isZero() || ($amount->isNegative() && (null !== $disputed || null !== $back))) {
            throw InvalidValue::because(sprintf('%s of a credit note for something; expected above 0.', $amount));
        }
        if ($taxPercent->isNegative() || $taxPercent->isGreaterThan(100)) {
            throw InvalidValue::because(sprintf('A tax of %s %%; expected 0 to 100.', $taxPercent));
        }
        $note->add($this);
    }
}
