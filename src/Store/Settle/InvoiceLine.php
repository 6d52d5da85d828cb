<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Settling\LineMatch;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Type\BigDecimalType;

/** Goods of an order's line, a charge such as freight, or a deposit, as a supplier asks for them. */
#[ORM\Entity]
#[ORM\Table(name: 'invoice_line')]
#[ORM\Index(name: 'disputed_quantity', columns: ['on_quantity'])]
#[ORM\Index(name: 'disputed_price', columns: ['on_price'])]
class InvoiceLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** Received and on no other invoice when it was looked at last. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $received;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $owedPacks;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)]
    private BigDecimal $owedPrice;

    #[ORM\Column(length: 12, enumType: QuantityVerdict::class, nullable: true)]
    private ?QuantityVerdict $onQuantity = null;

    #[ORM\Column(length: 12, enumType: PriceVerdict::class, nullable: true)]
    private ?PriceVerdict $onPrice = null;

    /** @throws InvalidValue if a figure is below zero; the amount of an allowance may be */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Invoice $invoice,
        #[ORM\Column] public readonly int $position,
        /** Null for a charge and a deposit. */
        #[ORM\ManyToOne] public readonly ?OrderLine $orderLine,
        #[ORM\Column(length: 200)] public readonly string $words,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $packs,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)] public readonly BigDecimal $price,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)] public readonly BigDecimal $taxPercent,
        /** Whose deposit is asked for, or taken off with an amount below zero. */
        #[ORM\ManyToOne] public readonly ?PurchaseOrder $deposit = null,
        /** What may be asked as a deposit, before tax; null for anything else. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
        private ?BigDecimal $depositAgreed = null,
    ) {
        foreach ([$packs, $price, $taxPercent] as $figure) {
            // What is taken off the whole of an invoice stands on it like a charge.
            if ($figure->isNegative() && ($figure !== $price || null !== $orderLine)) {
                throw InvalidValue::negative((string) $figure, 'a figure of 0 or more');
            }
        }
        $this->received = $this->owedPacks = $packs;
        $this->owedPrice = $price;
        $invoice->add($this);
    }

    /** Looks at it again with what has come by now. */
    public function weigh(BigDecimal $received): void
    {
        $this->received = null === $this->orderLine ? $this->packs : $received;
        $match = $this->match();
        $this->owedPacks = $match->owedPacks();
        $this->owedPrice = $match->owedPrice();
    }

    public function decide(?QuantityVerdict $onQuantity, ?PriceVerdict $onPrice): void
    {
        $this->invoice->decided();
        $this->onQuantity = $onQuantity ?? $this->onQuantity;
        $this->onPrice = $onPrice ?? $this->onPrice;
        $this->weigh($this->received);
    }

    public function match(): LineMatch
    {
        return new LineMatch(
            $this->orderLine?->packs() ?? $this->packs,
            $this->received,
            $this->packs,
            $this->orderLine?->price() ?? $this->depositAgreed ?? $this->price,
            $this->price,
            $this->invoice->supplier->tolerance()->tolerance(),
            $this->onQuantity,
            $this->onPrice,
        );
    }

    public function isDecided(): bool
    {
        return $this->match()->isDecided();
    }

    /** The order it is about; null for a charge. */
    public function order(): ?PurchaseOrder
    {
        return $this->orderLine->order ?? $this->deposit;
    }

    public function isCharge(): bool
    {
        return null === $this->orderLine && null === $this->deposit;
    }

    /** Why no tax is on it, as it was ordered, or as the supplier is taxed. */
    private function category(): TaxCategory
    {
        $known = $this->orderLine?->tax() ?? $this->invoice->supplier->tax();

        return Tax::percent($this->taxPercent, $known->category)->category;
    }

    /** What of it we account for the tax of ourselves: goods and charges, not deposits, which are none yet. */
    public function taxedByUs(): Money
    {
        return null === $this->deposit && $this->category()->isOwedByBuyer()
            ? $this->owed()
            : Money::zero($this->invoice->currency);
    }

    public function onQuantity(): ?QuantityVerdict
    {
        return $this->onQuantity;
    }

    public function onPrice(): ?PriceVerdict
    {
        return $this->onPrice;
    }

    /** Of what was ordered, as far as it came or is awaited. */
    public function owedPacks(): BigDecimal
    {
        return $this->owedPacks;
    }

    public function asked(): Money
    {
        return Money::of($this->packs->multipliedBy($this->price), $this->invoice->currency)->rounded();
    }

    public function owed(): Money
    {
        return Money::of($this->owedPacks->multipliedBy($this->owedPrice), $this->invoice->currency)->rounded();
    }
}
