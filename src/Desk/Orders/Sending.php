<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\OrderLetter;
use TallBarrel\Store\Order\OrderPaper;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Person\Person;

/** What happens to an order between its draft and the supplier. Each step is one transaction on the locked order. */
final readonly class Sending
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Orders $orders,
        private OrderPaper $paper,
        private OrderLetter $letter,
        private Agreements $agreements,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** Asks for a yes, or gives it where the person's own limit reaches. */
    public function submit(int $id, int $version, Person $person, bool $overDraw = false): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person, $overDraw): void {
            $this->askAboutAgreements($order, $person, $overDraw);
            if ($person->maySpend($order->homeTotal())) {
                $order->approve($person, $this->clock->now());
                $this->audit->note($person, $order->number, sprintf('Approved, within %s’s limit', $person->firstName()));
            } else {
                $order->awaitApproval();
                $this->audit->note($person, $order->number, 'Asked for approval');
            }
        });
    }

    public function approve(int $id, int $version, Person $person): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person): void {
            $order->approve($person, $this->clock->now());
            $this->audit->note($person, $order->number, 'Approved');
        });
    }

    public function sendBack(int $id, int $version, Person $person, string $reason): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person, $reason): void {
            $order->backToDraft();
            $this->audit->note($person, $order->number, '' === $reason ? 'Back to draft' : 'Back to draft: '.$reason);
        });
    }

    /**
     * Approves within the person's own limit where nobody has yet, then sends: state, revision, kept document and mail
     * together or not at all.
     *
     * @throws Refused if something is missing, or a yes is
     */
    public function send(int $id, int $version, Person $person, bool $overDraw = false): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person, $overDraw): void {
            $now = $this->clock->now();
            if (OrderState::Draft === $order->state()) {
                $this->askAboutAgreements($order, $person, $overDraw);
                $order->approve($person, $now);
                $this->audit->note($person, $order->number, sprintf('Approved, within %s’s limit', $person->firstName()));
            }
            $order->send($now);
            $this->entities->persist(OrderRevision::of($order, $person, $now));
            $pdf = $this->paper->pdf($order);
            $to = $order->supplier->contact()?->email() ?? '';
            $this->entities->persist(new SentDocument($order, $order->revision(), sprintf('%s.pdf', $order->number), 'application/pdf', $to, $now, $pdf));
            $this->audit->note($person, $order->number, sprintf('Sent to %s, %s', $order->supplier->contact()?->name() ?? '', $to));
            $this->entities->flush();
            $this->letter->send($order, $person, $pdf);
        });
    }

    public function acknowledge(int $id, int $version, Person $person, \DateTimeImmutable $promised): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person, $promised): void {
            $order->acknowledge($promised, $this->clock->now());
            $this->audit->note($person, $order->number, 'Acknowledged for '.$promised->format('D j M Y'));
        });
    }

    public function cancel(int $id, int $version, Person $person): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person): void {
            $order->cancel();
            $this->audit->note($person, $order->number, 'Cancelled');
        });
    }

    /** Gives up what is outstanding. */
    public function closeShort(int $id, int $version, Person $person, string $agreedWith): PurchaseOrder
    {
        return $this->step($id, $version, function (PurchaseOrder $order) use ($person, $agreedWith): void {
            if (!$order->state()->isOpen()) {
                throw new Refused(sprintf('%s is %s; there is nothing outstanding to close.', $order->number, $order->state()->words()));
            }
            foreach ($order->lines() as $line) {
                $line->closeShort();
            }
            $order->settleState();
            $this->audit->note($person, $order->number, 'What was outstanding is closed'.('' === $agreedWith ? '' : ', agreed with '.$agreedWith));
        });
    }

    /** @throws Refused if it would draw too much or too little, and nobody said yes to that */
    private function askAboutAgreements(PurchaseOrder $order, Person $person, bool $overDraw): void
    {
        $objections = $this->agreements->objections($order->lines(), $this->clock->now());
        if ([] === $objections) {
            return;
        }
        if (!$overDraw) {
            throw new Refused(implode(' ', $objections).' Tick “draw it anyway” if that is meant.');
        }
        $this->audit->note($person, $order->number, 'Drawn anyway: '.implode(' ', $objections));
    }

    /**
     * @param callable(PurchaseOrder): void $change
     *
     * @throws Refused if somebody changed the order meanwhile, or the rules forbid the step
     */
    private function step(int $id, int $version, callable $change): PurchaseOrder
    {
        return $this->entities->wrapInTransaction(function () use ($id, $version, $change): PurchaseOrder {
            $order = $this->orders->lock($id);
            if ($order->version() !== $version) {
                throw new Refused(sprintf('%s was changed by somebody else meanwhile. Look at it once more, then try again.', $order->number));
            }
            $change($order);

            return $order;
        });
    }
}
