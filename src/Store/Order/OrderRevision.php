<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Core\Ordering\StatedLine;
use TallBarrel\Store\Person\Person;

/**
 * An order as it stood when it was sent.
 *
 * @phpstan-import-type StatedData from StatedLine
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 *
 * @phpstan-type Snapshot array{facts: array<string, string>, deliveryTerms: string, wantedOn: string, note: string,
 *      lines: list<StatedData>, adjustments?: list<AllowanceChargeData>, deliverTo?: string, carrier?: string}
 */
#[ORM\Entity(readOnly: true)]
class OrderRevision
{
    /** @param Snapshot $snapshot */
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\Id, ORM\Column] public readonly int $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(type: 'json')] public readonly array $snapshot,
    ) {
    }

    public static function of(PurchaseOrder $order, Person $by, \DateTimeImmutable $at): self
    {
        return new self($order, $order->revision(), $by, $at, [
            'facts' => $order->supplier->facts(),
            'deliveryTerms' => $order->deliveryTerms(),
            'wantedOn' => $order->wantedOn()->format('Y-m-d'),
            'note' => $order->note(),
            'deliverTo' => $order->deliverTo(),
            'carrier' => $order->carrier(),
            'lines' => array_map(
                static fn (OrderLine $line): array => [
                    'position' => $line->position,
                    'item' => $line->item->code ?? '',
                    'supplierCode' => $line->supplierCode(),
                    'description' => $line->description,
                    'site' => $line->site->code,
                    'pack' => $line->pack()->label(),
                    'packs' => (string) $line->packs(),
                    'price' => (string) $line->price(),
                    'wanted' => $line->wantedOn()->format('Y-m-d'),
                ],
                $order->lines(),
            ),
            'adjustments' => array_map(
                static fn (AllowanceCharge $adjustment): array => $adjustment->toArray(),
                $order->adjustments(),
            ),
        ]);
    }

    /** @return list<StatedLine> */
    public function lines(): array
    {
        return array_map(
            fn (array $line): StatedLine => StatedLine::of($line, $this->snapshot['wantedOn']),
            $this->snapshot['lines'],
        );
    }

    /** @return list<string> charges and allowances, in words */
    public function adjusted(): array
    {
        return array_map(
            static fn (array $data): string => AllowanceCharge::fromArray($data)->words(),
            $this->snapshot['adjustments'] ?? [],
        );
    }

    /** In what it differs from an earlier one. */
    public function since(self $earlier): RevisionChange
    {
        return RevisionChange::between(
            $earlier->lines(),
            $this->lines(),
            $earlier->snapshot['note'] !== $this->snapshot['note'],
            $earlier->adjusted(),
            $this->adjusted(),
        );
    }
}
