<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Lines of one order on another of the same supplier: bought once more, taken in whole, or set apart. */
final readonly class ShareLines
{
    public function __construct(
        private OrderStep $step,
        private Orders $orders,
        private BeginOrder $begin,
        private PutOnOrder $lines,
        private Audit $audit,
    ) {
    }

    /**
     * What an earlier order bought, at today's prices; what is not sold so any more is left out and said.
     *
     * @return list<string> what is worth saying
     *
     * @throws Refused
     */
    public function copy(SeenOrder $seen, string $from, Person $person): array
    {
        $said = [];
        $this->step->take($seen, function (PurchaseOrder $order) use ($from, $person, &$said): void {
            $order->mustBeEditable();
            $taken = 0;
            foreach ($this->other($order, $from)->lines() as $line) {
                if (!$line->packs()->isPositive()) {
                    continue;
                }
                try {
                    null === $line->offer
                        ? OrderLine::likeOf($order, $line)
                        : $this->lines->put($order, $line->offer, $line->site, $line->packs());
                    ++$taken;
                } catch (InvalidValue $invalid) {
                    $said[] = sprintf('%s is left out: %s', $line->description, $invalid->getMessage());
                }
            }
            $this->audit->note($person, $order->number, sprintf('%d lines taken over from %s', $taken, $from));
            array_unshift($said, sprintf('%d lines are taken over from %s.', $taken, $from));
        });

        return $said;
    }

    /**
     * All lines of another draft, which is thrown away.
     *
     * @throws Refused unless both are drafts to the same supplier
     */
    public function merge(SeenOrder $seen, string $from, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($from, $person): void {
            $order->mustBeEditable();
            $other = $this->orders->lock($this->other($order, $from)->id);
            if (OrderState::Draft !== $other->state()) {
                throw new Refused(sprintf('%s is %s; only a draft can be taken in.', $from, $other->state()->words()));
            }
            foreach ($other->lines() as $line) {
                $same = self::same($order, $line);
                null === $same
                    ? OrderLine::likeOf($order, $line)
                    : $same->change($same->packs()->plus($line->packs()), $same->listPrice());
            }
            $other->cancel();
            $this->audit->note($person, $order->number, $from.' taken in');
            $this->audit->note($person, $from, 'Taken into '.$order->number);
        });
    }

    /**
     * Some lines on a draft of their own.
     *
     * @param list<int> $lines their ids
     *
     * @throws Refused where none or all are meant
     */
    public function split(SeenOrder $seen, array $lines, Person $person): PurchaseOrder
    {
        $apart = null;
        $this->step->take($seen, function (PurchaseOrder $order) use ($lines, $person, &$apart): void {
            $moving = array_filter(
                $order->lines(),
                static fn (OrderLine $line): bool => in_array($line->id, $lines, true),
            );
            if ([] === $moving || count($moving) === count($order->lines())) {
                throw new Refused('Tick some of the lines, not all, to give them a draft of their own.');
            }
            $apart = $this->begin->blank(
                $order->supplier,
                $person,
                $order->wantedOn(),
                'Set apart from '.$order->number,
            );
            foreach ($moving as $line) {
                OrderLine::likeOf($apart, $line);
                $order->remove($line);
            }
            $this->audit->note(
                $person,
                $order->number,
                sprintf('%d lines set apart on %s', count($moving), $apart->number),
            );
        });

        return $apart ?? throw new \LogicException('Nothing was set apart.');
    }

    /** @throws Refused if it is none, the same, or another supplier's */
    private function other(PurchaseOrder $order, string $number): PurchaseOrder
    {
        $other = $this->orders->byNumber($number);
        if (null === $other || $other === $order || $other->supplier !== $order->supplier) {
            throw new Refused(
                sprintf('“%s” is no other order to %s.', $number, $order->supplier->name()),
            );
        }

        return $other;
    }

    private static function same(PurchaseOrder $order, OrderLine $of): ?OrderLine
    {
        foreach ($order->lines() as $line) {
            if (
                null !== $line->offer
                && $line->offer === $of->offer
                && $line->site === $of->site
                && Day::isSame($line->wantedOn(), $of->wantedOn())
            ) {
                return $line;
            }
        }

        return null;
    }
}
