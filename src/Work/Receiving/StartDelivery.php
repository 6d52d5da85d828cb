<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Order\Despatch;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Site\Site;

/** Begins to count what stands at the dock: one delivery note, for one or several orders of a supplier. */
final readonly class StartDelivery
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Orders $orders,
        private ClockInterface $clock,
    ) {
    }

    /**
     * The same note begun twice, or by a colleague, is the same delivery.
     *
     * @param list<int> $orders    ids
     * @param bool      $elsewhere whether what of them is for other sites is unloaded here too, to be sent on
     * @param Problems  $problems  what stands in the way is added
     *
     * @param Despatch|null $advised what they said was on its way, where it is that
     *
     * @return Delivery|null null where something does
     */
    public function start(
        array $orders,
        ?Site $site,
        string $note,
        bool $elsewhere,
        Problems $problems,
        ?Despatch $advised = null,
    ): ?Delivery {
        $lines = $this->lines($orders, $site, $elsewhere);
        if ('' === $note) {
            $problems->refuse('note', 'The number on the delivery note is needed; type “none” if there is no paper.');
        }
        if ([] === $lines) {
            $problems->refuse(
                'orders',
                sprintf('Nothing of these orders is still to come to %s.', $site->name ?? 'that site'),
            );
        }
        if (!$problems->areNone() || [] === $lines || null === $site) {
            return null;
        }
        $supplier = $lines[0]->order->supplier;
        $begun = $this->entities
            ->getRepository(Delivery::class)
            ->findOneBy(['supplier' => $supplier, 'site' => $site, 'noteNumber' => $note, 'bookedAt' => null]);
        if (null !== $begun) {
            return $begun;
        }
        $delivery = new Delivery($supplier, $site, $note, $this->clock->now(), $advised);
        array_map($delivery->expect(...), $lines);
        $this->entities->persist($delivery);
        $this->entities->flush();

        return $delivery;
    }

    /**
     * @param list<int> $orders
     *
     * @return list<OrderLine> what is still to come on them to a site, or to any
     */
    private function lines(array $orders, ?Site $site, bool $elsewhere): array
    {
        $lines = [];
        foreach ($this->orders->open() as $order) {
            if (in_array($order->id, $orders, true)) {
                array_push(
                    $lines,
                    ...array_filter(
                        $order->lines(),
                        static fn (OrderLine $line): bool => ($elsewhere || $line->site === $site)
                            && $line->outstanding()->isPositive(),
                    ),
                );
            }
        }

        return $lines;
    }
}
