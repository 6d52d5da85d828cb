<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Day;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** The supplier's yes, with its day. */
final readonly class AcknowledgeOrder
{
    public function __construct(private OrderStep $step, private Audit $audit, private ClockInterface $clock)
    {
    }

    /**
     * For the day that is wanted.
     *
     * @throws Refused if that is over
     */
    public function asWanted(PurchaseOrder $order, Person $person): PurchaseOrder
    {
        $wanted = $order->wantedOn();
        if ($wanted < $this->clock->now()->setTime(0, 0)) {
            throw new Refused(
                sprintf(
                    '%s was wanted for %s, which is over: note the day they name on the order.',
                    $order->number,
                    $wanted->format('D j M'),
                ),
            );
        }

        return $this->acknowledge(SeenOrder::now($order), $person, $wanted);
    }

    /**
     * What was noted by mistake.
     *
     * @throws Refused if there is nothing to take back, or something has come since
     */
    public function takeBack(SeenOrder $seen, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person): void {
            $order->isUnconfirmed();
            $this->audit->note($person, $order->number, 'Not acknowledged after all');
        });
    }

    /**
     * @param array<int, \DateTimeImmutable> $byLine days of lines that come on another, by the line's id
     *
     * @throws Refused
     */
    public function acknowledge(
        SeenOrder $seen,
        Person $person,
        \DateTimeImmutable $promised,
        array $byLine = [],
    ): PurchaseOrder {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $promised, $byLine): void {
            $order->acknowledge($promised, $this->clock->now(), $byLine);
            $words = 'Acknowledged for '.$promised->format('D j M Y');
            foreach ($order->lines() as $line) {
                if (isset($byLine[$line->id]) && !Day::isSame($byLine[$line->id], $promised)) {
                    $words .= sprintf(', line %s for %s', $line->number(), $byLine[$line->id]->format('D j M'));
                }
            }
            $this->audit->note($person, $order->number, $words);
        });
    }
}
