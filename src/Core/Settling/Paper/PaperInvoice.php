<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

/** An invoice or a credit note as a file has it, in the terms of EN 16931-1:2017, 6.3. Empty where it says nothing. */
final readonly class PaperInvoice
{
    /** Codes of UNTDID 1001 that ask for money (BT-3). */
    public const INVOICES = ['380', '383', '384', '386', '326', '877', '389', '751'];
    /** Codes that give some back. */
    public const CREDITS = ['381', '396', '532'];

    /**
     * @param string             $number   BT-1
     * @param string             $day      BT-2, as it stands there
     * @param string             $type     BT-3
     * @param string             $currency BT-5
     * @param string             $order    BT-13, the order
     * @param string             $dueOn    BT-9
     * @param string             $terms    BT-20
     * @param string             $seller   BT-27
     * @param string             $taxId    BT-31, the seller's
     * @param string             $buyer    BT-44
     * @param string             $iban     BT-84, where it is to be paid
     * @param string             $about    BT-25, the invoice that a credit note is about
     * @param list<PaperLine>    $lines
     * @param list<PaperCharge>  $charges
     * @param list<PaperTax>     $taxes
     * @param list<PaperPicture> $pictures BG-24, what is in the file with it
     */
    public function __construct(
        public string $number,
        public string $day,
        public string $type,
        public string $currency,
        public string $order,
        public string $dueOn,
        public string $terms,
        public string $seller,
        public string $taxId,
        public string $buyer,
        public string $iban,
        public string $about,
        public PaperTotals $totals,
        public array $lines,
        public array $charges,
        public array $taxes,
        public array $pictures = [],
    ) {
    }

    public function isCredit(): bool
    {
        return in_array($this->type, self::CREDITS, true);
    }
}
