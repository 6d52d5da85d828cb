<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Type\BigDecimalType;

/** What goes back of one line of a receipt. */
#[ORM\Entity]
class SupplierReturnLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** Whether they need not ask for it: it left before it was on an invoice. */
    #[ORM\Column(options: ['default' => false])]
    private bool $uncharged = false;

    #[ORM\Column(options: ['default' => false])]
    private bool $theirs = false;

    /** @throws InvalidValue unless it is above 0 and no more than came */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly SupplierReturn $back,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly ReceiptLine $came,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $packs,
    ) {
        if (!$packs->isPositive() || $packs->isGreaterThan($came->packs)) {
            throw InvalidValue::because(sprintf(
                '%s of %s cannot go back; %s came.',
                $packs,
                $came->line->description,
                $came->packs->strippedOfTrailingZeros(),
            ));
        }
        $back->add($this);
    }

    public function units(): BigDecimal
    {
        return $this->came->line->pack()->toStockUnits($this->packs);
    }

    /** It was on consignment, and goes back to whose it is. */
    public function wasTheirs(): void
    {
        $this->theirs = true;
    }

    public function goesUncharged(): void
    {
        $this->uncharged = true;
    }

    public function isTheirs(): bool
    {
        return $this->theirs;
    }

    public function isUncharged(): bool
    {
        return $this->uncharged;
    }
}
