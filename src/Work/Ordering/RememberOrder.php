<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** What only we read of an order, at any time in its life: what the supplier calls it, and a note for a day. */
final readonly class RememberOrder
{
    public function __construct(private EntityManagerInterface $entities, private Audit $audit)
    {
    }

    /** @throws Refused where there is a day without words, or words without a day */
    public function remember(
        PurchaseOrder $order,
        string $theirReference,
        string $reminder,
        ?\DateTimeImmutable $remindOn,
        Person $person,
    ): void {
        if (('' === $reminder) !== (null === $remindOn)) {
            throw new Refused(
                '' === $reminder
                    ? sprintf('What is to be thought of on %s?', $remindOn?->format('D j M'))
                    : 'On which day is it to stand on Today?',
            );
        }
        $was = $order->theirReference();
        $order->remember($theirReference, $reminder, $remindOn);
        if ($was !== $order->theirReference()) {
            $this->audit->note($person, $order->number, sprintf('They call it %s', $theirReference ?: 'nothing'));
        }
        $this->entities->flush();
    }
}
