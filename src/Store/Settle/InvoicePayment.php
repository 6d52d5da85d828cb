<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Type\BigDecimalType;

/** What was paid of an invoice on a day: all, the rest, or a part. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'invoice_payment')]
class InvoicePayment
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'payments'), ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Invoice $invoice,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        /** In the invoice's currency. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $amount,
        /** Where it stands with the bank; empty where somebody noted it. */
        #[ORM\Column(length: 60)] public readonly string $reference,
        #[ORM\ManyToOne] public readonly ?Person $by,
        /** Units of its currency for one of ours on that day. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 8)] public readonly BigDecimal $foreignForOne,
    ) {
    }

    public function money(): Money
    {
        return Money::of($this->amount, $this->invoice->currency);
    }

    /**
     * What it cost us in home currency more than the invoice said at the rate it was entered at; below zero for less.
     *
     * Source: IAS 21 "The Effects of Changes in Foreign Exchange Rates", paragraph 28.
     */
    public function exchangeDifference(): BigDecimal
    {
        $then = $this->invoice->rate();
        $now = ExchangeRate::of($then->home, $then->foreign, $this->foreignForOne);
        $paid = $this->money();

        return $now->toHome($paid)->rounded()->minus($then->toHome($paid)->rounded())->amount;
    }
}
