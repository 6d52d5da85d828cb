<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;

/** Writes the documents of an order as they go out, and keeps them. */
final readonly class KeepDocuments
{
    public function __construct(
        private EntityManagerInterface $entities,
        private OrderPaper $paper,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param RevisionChange|null $change what is different from what was sent before; null the first time
     *
     * @return non-empty-list<SentDocument>
     */
    public function of(PurchaseOrder $order, ?RevisionChange $change = null): array
    {
        $name = $order->number.($order->revision() > 1 ? '-'.$order->revision() : '');
        $to = $order->supplier->contact()?->email() ?? '';
        $documents = [
            $this->document($order, $name.'.pdf', 'application/pdf', $to, $this->paper->pdf($order, $change)),
        ];
        if ($order->supplier->wantsCsv()) {
            $documents[] = $this->document(
                $order,
                $order->supplier->csvLayout()->filename($name),
                'text/csv',
                $to,
                $this->paper->csv($order),
            );
        }
        if ($order->supplier->wantsXml()) {
            $documents[] = $this->document($order, $name.'.xml', 'application/xml', $to, $this->paper->xml($order));
        }
        array_map($this->entities->persist(...), $documents);

        return $documents;
    }

    private function document(
        PurchaseOrder $order,
        string $name,
        string $mediaType,
        string $to,
        string $bytes,
    ): SentDocument {
        return new SentDocument($order, $order->revision(), $name, $mediaType, $to, $this->clock->now(), $bytes);
    }
}
