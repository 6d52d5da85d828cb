<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\PurchaseOrder;

/** Writes an order as the documents that are sent. */
interface OrderPaper
{
    /**
     * @param RevisionChange|null $change what is different from what was sent before, to be marked
     *
     * @return string the PDF's bytes
     */
    public function pdf(PurchaseOrder $order, ?RevisionChange $change = null): string;

    /** @return string what it will truly cost, line by line, as a PDF for ourselves */
    public function costing(PurchaseOrder $order): string;

    /** @return string its lines as a file, for suppliers who read orders in */
    public function csv(PurchaseOrder $order): string;

    /** @return string the order as UBL 2.1 XML, for systems that read orders in */
    public function xml(PurchaseOrder $order): string;

    /**
     * Many of them in a list.
     *
     * @param list<OrderRow> $rows
     */
    public function list(array $rows): string;
}
