<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

/** Draws an order as a document worth sending. */
interface OrderPaper
{
    /** @return string the PDF's bytes */
    public function pdf(PurchaseOrder $order): string;
}
