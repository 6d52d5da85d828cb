<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Ordering\OrderPaper;

/** A purchase order on paper, and as a CSV file of its lines (RFC 4180). */
final readonly class OrderDocuments implements OrderPaper
{
    private const COLUMNS = [
        'order',
        'line',
        'your_code',
        'our_code',
        'description',
        'quantity',
        'pack',
        'price',
        'currency',
        'deliver_to',
        'wanted_on',
    ];

    public function __construct(private Paper $paper, private CurrentBusiness $business, private TableFile $table)
    {
    }

    public function pdf(PurchaseOrder $order, ?RevisionChange $change = null): string
    {
        return $this->paper->pdf('paper/order.html.twig', [
            'order' => $order,
            'business' => $this->business->get(),
            'change' => $change,
        ]);
    }

    public function csv(PurchaseOrder $order): string
    {
        $rows = array_map(
            static fn (OrderLine $line): array => [
                $order->number,
                (string) $line->position,
                $line->supplierCode(),
                $line->item->code ?? '',
                $line->description,
                (string) $line->packs()->strippedOfTrailingZeros(),
                $line->pack()->label(),
                (string) $line->price()->strippedOfTrailingZeros(),
                $order->currency,
                $line->site->name,
                $line->wantedOn()->format('Y-m-d'),
            ],
            $order->lines(),
        );

        return $this->table->write([self::COLUMNS, ...$rows]);
    }
}
