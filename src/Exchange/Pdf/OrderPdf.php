<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderPaper;
use TallBarrel\Store\Order\PurchaseOrder;

/** A purchase order on paper. */
final readonly class OrderPdf implements OrderPaper
{
    public function __construct(private Paper $paper, private CurrentBusiness $business)
    {
    }

    public function pdf(PurchaseOrder $order): string
    {
        return $this->paper->pdf('paper/order.html.twig', ['order' => $order, 'business' => $this->business->get()]);
    }
}
