<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** A sent order that planning has an opinion on: counted on although late, or asked for sooner. */
final readonly class ChaseOrder
{
    private const ASKED = 'Asked where it is';

    public function __construct(
        private EntityManagerInterface $entities,
        private OrderLetter $letter,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @throws Refused if nothing is to come on it */
    public function countOn(PurchaseOrder $order, bool $counted, Person $person): void
    {
        $this->entities->wrapInTransaction(function () use ($order, $counted, $person): void {
            $order->countOn($counted);
            $words = $counted ? 'Planning counts on it, although it is late' : 'Planning no longer counts on it';
            $this->audit->note($person, $order->number, $words);
        });
    }

    /**
     * Asks where it is; once a day at most.
     *
     * @throws Refused if nothing is to come on it, nobody can be written to, or it was asked today
     */
    public function askWhere(PurchaseOrder $order, Person $person): void
    {
        $order->mustBeOpen();
        if (null === $order->supplier->contact()) {
            throw new Refused(sprintf('%s has no contact to write to.', $order->supplier->name()));
        }
        $today = $this->clock->now()->format('Y-m-d');
        $before = 0;
        foreach ($this->audit->of($order->number) as $entry) {
            if (str_starts_with($entry->words, self::ASKED)) {
                ++$before;
                if ($entry->at->format('Y-m-d') === $today) {
                    throw new Refused(sprintf('They were asked about %s today already.', $order->number));
                }
            }
        }
        $this->entities->wrapInTransaction(function () use ($order, $before, $person): void {
            $this->letter->askWhere($order, $before, $person);
            $this->audit->note(
                $person,
                $order->number,
                self::ASKED.(0 === $before ? '' : sprintf(' once more; %d times before', $before)),
            );
        });
    }

    /** @throws Refused if it cannot be asked for */
    public function bringForward(PurchaseOrder $order, ?Item $item, \DateTimeImmutable $by, Person $person): void
    {
        if (null === $item || !$order->state()->isOpen()) {
            throw new Refused(sprintf('There is nothing to bring forward on %s.', $order->number));
        }
        if (null === $order->supplier->contact()) {
            throw new Refused(sprintf('%s has no contact to write to.', $order->supplier->name()));
        }
        if ([] === array_filter($order->lines(), static fn (OrderLine $line): bool => $line->item === $item)) {
            throw new Refused(sprintf('%s is not on %s.', $item->code, $order->number));
        }
        $this->entities->wrapInTransaction(function () use ($order, $item, $by, $person): void {
            $this->letter->askForward($order, $item, $by, $person);
            $this->audit->note(
                $person,
                $order->number,
                sprintf('Asked to bring %s forward to %s', $item->code, $by->format('j M')),
            );
        });
    }
}
