<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Work\Receiving\DockPaper;

final readonly class DockDocuments implements DockPaper
{
    public function __construct(private Paper $paper, private CurrentBusiness $business, private Receipts $receipts)
    {
    }

    public function receipt(Receipt $receipt): string
    {
        return $this->paper->pdf('paper/receipt.html.twig', [
            'receipt' => $receipt,
            'takenBack' => $this->receipts->takenBack($receipt),
            'business' => $this->business->get(),
        ]);
    }

    public function countingSheet(Delivery $delivery, bool $blind): string
    {
        return $this->paper->pdf('paper/counting.html.twig', [
            'delivery' => $delivery,
            'blind' => $blind,
            'business' => $this->business->get(),
        ]);
    }

    public function transfer(Transfer $transfer, array $places): string
    {
        return $this->paper->pdf('paper/transfer.html.twig', [
            'transfer' => $transfer,
            'places' => $places,
            'business' => $this->business->get(),
        ]);
    }

    public function goingBack(SupplierReturn $back): string
    {
        return $this->paper->pdf('paper/return.html.twig', [
            'back' => $back,
            'lang' => $back->receipt->delivery->supplier->paperLanguage()->value,
            'business' => $this->business->get(),
        ]);
    }
}
