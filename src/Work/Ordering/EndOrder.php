<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/**
 * Ends an order before all of it came: cancelled while nothing has, its rest given up afterwards; and takes either
 * back.
 */
final readonly class EndOrder
{
    public function __construct(
        private OrderStep $step,
        private OrderLetter $letter,
        private Amendments $amendments,
        private Audit $audit,
    ) {
    }

    /**
     * What was sent is cancelled by a letter, unless the supplier knows already.
     *
     * @throws Refused if something has been received, or a sent order is cancelled without a reason
     */
    public function cancel(SeenOrder $seen, Person $person, string $reason, bool $theyKnow = false): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $reason, $theyKnow): void {
            $out = $order->state()->isOpen();
            if ($out && '' === $reason) {
                throw new Refused(sprintf('Why is %s cancelled? The supplier is told.', $order->number));
            }
            $order->cancel();
            $this->amendments->drop($order);
            if ($out && !$theyKnow) {
                $this->letter->cancelled($order, $reason, $person);
            }
            $this->audit->note(
                $person,
                $order->number,
                'Cancelled'.
                    ('' === $reason ? '' : ': '.$reason).
                    ($out ? ($theyKnow ? '; they know already' : '; they were written to') : ''),
            );
        });
    }

    /**
     * @param list<int>|null $lines ids of the lines; null for all that is outstanding
     *
     * @throws Refused if nothing is outstanding, or nobody agreed
     */
    public function closeShort(SeenOrder $seen, Person $person, string $agreedWith, ?array $lines = null): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $agreedWith, $lines): void {
            if ('' === $agreedWith) {
                throw new Refused('Who agreed that the rest does not come? Type a name.');
            }
            $closed = array_filter(
                $order->lines(),
                static fn (OrderLine $line): bool => $line->outstanding()->isPositive()
                    && (null === $lines || in_array($line->id, $lines, true)),
            );
            if ([] === $closed) {
                throw new Refused('Nothing is outstanding on what was chosen.');
            }
            $words = array_map(
                static fn (OrderLine $line): string => sprintf(
                    '%s %s of %s',
                    $line->outstanding()->strippedOfTrailingZeros(),
                    $line->pack()->named($line->outstanding()),
                    $line->item->code ?? $line->description,
                ),
                $closed,
            );
            $order->closeShort(array_values(array_map(static fn (OrderLine $line): int => $line->id, $closed)));
            $this->amendments->drop($order);
            $this->audit->note(
                $person,
                $order->number,
                sprintf('Closed short, agreed with %s: %s', $agreedWith, implode(', ', $words)),
            );
        });
    }

    /** @throws Refused if it has not ended */
    public function reopen(SeenOrder $seen, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person): void {
            $before = $order->state();
            $order->reopen();
            $this->audit->note(
                $person,
                $order->number,
                sprintf('Opened again: was %s, is %s', $before->words(), $order->state()->words()),
            );
        });
    }
}
