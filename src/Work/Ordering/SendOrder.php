<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/**
 * Sends an order: state, revision, every document kept as it goes out, and the letter in the queue, together or not at
 * all. Where nobody has approved it yet, the sender does, within their own limit.
 */
final readonly class SendOrder
{
    public function __construct(
        private EntityManagerInterface $entities,
        private OrderStep $step,
        private MindAgreements $agreements,
        private KeepDocuments $documents,
        private OrderLetter $letter,
        private Audit $audit,
        private Approval $approval,
        private ClockInterface $clock,
    ) {
    }

    /** @throws Refused if something is missing, or a yes is */
    public function send(
        SeenOrder $seen,
        Person $person,
        bool $drawAnyway = false,
        ?LetterWords $words = null,
    ): PurchaseOrder {
        $words ??= LetterWords::usual();

        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $drawAnyway, $words): void {
            $now = $this->clock->now();
            if (OrderState::Draft === $order->state()) {
                $this->agreements->of($order, $person, $drawAnyway);
                $this->approval->give($order, $person);
                $this->audit->note(
                    $person,
                    $order->number,
                    sprintf('Approved, within %s’s limit', $person->firstName()),
                );
            }
            $order->send($now);
            $this->entities->persist(OrderRevision::of($order, $person, $now));
            $documents = $this->documents->of($order);
            $contact = $order->supplier->contact();
            $this->audit->note(
                $person,
                $order->number,
                sprintf(
                    'Sent to %s, %s',
                    $contact?->name() ?? '',
                    implode(', ', [$contact?->email() ?? '', ...$words->copies]),
                ),
            );
            $this->letter->send($order, $person, $documents, $words);
        });
    }
}
