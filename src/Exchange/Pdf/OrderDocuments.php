<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Exchange\Ubl\UblOrder;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Ordering\OrderPaper;

/** A purchase order on paper, as a CSV file of its lines (RFC 4180) and as UBL. */
final readonly class OrderDocuments implements OrderPaper
{
    public function __construct(
        private Paper $paper,
        private CurrentBusiness $business,
        private TableFile $table,
        private ClockInterface $clock,
    ) {
    }

    public function pdf(PurchaseOrder $order, ?RevisionChange $change = null): string
    {
        return $this->paper->pdf('paper/order.html.twig', [
            'order' => $order,
            'business' => $this->business->get(),
            'change' => $change,
        ]);
    }

    public function costing(PurchaseOrder $order): string
    {
        return $this->paper->pdf('paper/costing.html.twig', [
            'order' => $order,
            'business' => $this->business->get(),
            'today' => $this->clock->now(),
            'costing' => $order->costing(),
        ]);
    }

    public function list(array $rows): string
    {
        return $this->paper->pdf('paper/orders.html.twig', [
            'orders' => $rows,
            'business' => $this->business->get(),
            'today' => $this->clock->now(),
        ]);
    }

    public function xml(PurchaseOrder $order): string
    {
        return UblOrder::of($order, $this->business->get());
    }

    public function csv(PurchaseOrder $order): string
    {
        $layout = $order->supplier->csvLayout();
        $rows = array_map(
            static fn (OrderLine $line): array => $layout->cells([
                'order' => $order->number,
                'line' => $line->number(),
                'your_code' => $line->supplierCode(),
                'our_code' => $line->item->code ?? '',
                'description' => $line->description,
                'quantity' => (string) $line->packs()->strippedOfTrailingZeros(),
                'pack' => $line->pack()->label(),
                'price' => (string) $line->price()->strippedOfTrailingZeros(),
                'currency' => $order->currency,
                'deliver_to' => $line->site->name(),
                'wanted_on' => $line->wantedOn()->format('Y-m-d'),
            ]),
            $order->lines(),
        );

        return $this->table->write([$layout->headings(), ...$rows], $layout->delimiter);
    }
}
