<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\Despatch;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Work\Keeping\AllOrNothing;

/** A supplier says what has left, and planning counts on the day it should be here. */
final readonly class NoteDespatch
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Orders $orders,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, BigDecimal> $packs    by the line's id; lines that are not there have not left
     * @param Problems               $problems takes what stands in the way, by field; nothing is kept then
     *
     * @throws Refused if nothing is to come on the order
     */
    public function note(
        PurchaseOrder $order,
        array $packs,
        \DateTimeImmutable $hereOn,
        string $carrier,
        string $tracking,
        Problems $problems,
    ): void {
        $this->whole->take(function () use ($order, $packs, $hereOn, $carrier, $tracking, $problems): void {
            $order = $this->orders->lock($order->id);
            $order->mustBeOpen();
            $now = $this->clock->now();
            if ($hereOn < $now->setTime(0, 0)) {
                $problems->refuse('here', sprintf('%s is over; when will it be here?', $hereOn->format('j M Y')));
            }
            $left = [];
            foreach ($order->lines() as $line) {
                $gone = $packs[$line->id] ?? BigDecimal::zero();
                if ($gone->isGreaterThan($line->outstanding())) {
                    $problems->refuse(
                        'left-'.$line->id,
                        sprintf('Only %s are still to come.', $line->outstanding()->strippedOfTrailingZeros()),
                    );
                }
                $left[$line->id] = $gone;
            }
            $despatch = $problems->attempt(
                'left',
                static fn (): Despatch => new Despatch($order, $now, $hereOn, $carrier, $tracking, $left),
            );
            if (null === $despatch || !$problems->areNone()) {
                return;
            }
            foreach ($order->lines() as $line) {
                if ($line->outstanding()->isPositive() && $left[$line->id]->isEqualTo($line->outstanding())) {
                    $line->promiseFor($hereOn);
                }
            }
            $this->entities->persist($despatch);
            $this->audit->note(
                null,
                $order->number,
                sprintf(
                    'They say that %s left, here on %s%s',
                    1 === count($despatch->packs()) ? '1 line' : count($despatch->packs()).' lines',
                    $hereOn->format('D j M'),
                    '' === $tracking ? '' : ', tracking '.$tracking,
                ),
            );
        });
    }
}
