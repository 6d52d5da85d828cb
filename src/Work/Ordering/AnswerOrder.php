<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\AnsweredLine;
use TallBarrel\Core\Ordering\AnswerState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\OrderAnswer;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * What a supplier says of an order on its own page. What was ordered, or better, is confirmed at once; what differs
 * waits for a yes of ours.
 */
final readonly class AnswerOrder
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Orders $orders,
        private OrderStep $step,
        private PutInForce $force,
        private OrderLetter $letter,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param int                $revision of the order that they saw
     * @param list<AnsweredLine> $lines    what they say of each line that is outstanding; none for words alone
     *
     * @throws Refused if another revision is in force by now, or nothing is to come on it
     */
    public function answer(PurchaseOrder $order, int $revision, array $lines, string $message): OrderAnswer
    {
        return $this->whole->take(function () use ($order, $revision, $lines, $message): OrderAnswer {
            $order = $this->orders->lock($order->id);
            $order->mustBeOpen();
            if ($order->revision() !== $revision) {
                throw new Refused(
                    sprintf(
                        'The order has changed meanwhile: revision %d is in force. Please look at it and answer anew.',
                        $order->revision(),
                    ),
                );
            }
            $differ = array_filter($lines, static fn (AnsweredLine $line): bool => [] !== $line->differing());
            $cheaper = array_filter($lines, static fn (AnsweredLine $line): bool => $line->changesTheOrder());
            $state = match (true) {
                [] === $lines => AnswerState::Message,
                [] !== $differ => AnswerState::Waiting,
                default => AnswerState::Taken,
            };
            if (AnswerState::Message !== $state) {
                $this->overtake($order);
            }
            $answer = new OrderAnswer($order, $revision, $this->clock->now(), $state, $lines, $message);
            $this->entities->persist($answer);
            if (AnswerState::Taken === $state) {
                if ([] !== $cheaper) {
                    $this->makeItSo($order, $lines, $order->buyer);
                }
                $this->confirm($order, $lines);
            }
            $this->audit->note(null, $order->number, match ($state) {
                AnswerState::Message => 'They wrote: '.$message,
                AnswerState::Taken => 'Confirmed on their page',
                default => 'Answered otherwise on their page; it waits for a yes',
            });

            return $answer;
        });
    }

    /** @throws Refused if it was decided already, or does not fit the order any more */
    public function accept(SeenOrder $seen, int $answer, Person $person, string $words): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($answer, $person, $words): void {
            $waiting = $this->waiting($order, $answer);
            $waiting->decide(AnswerState::Accepted, $person);
            $lines = $waiting->lines();
            if ([] !== array_filter($lines, static fn (AnsweredLine $line): bool => $line->changesTheOrder())) {
                $this->makeItSo($order, $lines, $person);
            }
            $this->confirm($order, $lines);
            $this->letter->decided($waiting, $words, $person);
            $this->audit->note($person, $order->number, 'Agreed to what they answered');
        });
    }

    /** @throws Refused if it was decided already, or without a reason */
    public function decline(SeenOrder $seen, int $answer, Person $person, string $words): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($answer, $person, $words): void {
            if ('' === $words) {
                throw new Refused('Why not? The supplier reads it.');
            }
            $waiting = $this->waiting($order, $answer);
            $waiting->decide(AnswerState::Declined, $person);
            $this->letter->decided($waiting, $words, $person);
            $this->audit->note($person, $order->number, 'Did not agree to what they answered: '.$words);
        });
    }

    /** @throws Refused */
    private function waiting(PurchaseOrder $order, int $id): OrderAnswer
    {
        $answer = $this->entities->find(OrderAnswer::class, $id);
        if (null === $answer || $answer->order !== $order) {
            throw new Refused('That answer is gone.');
        }
        if ($answer->revision !== $order->revision()) {
            throw new Refused(
                sprintf(
                    'It answers revision %d; by now revision %d is in force.',
                    $answer->revision,
                    $order->revision(),
                ),
            );
        }

        return $answer;
    }

    private function overtake(PurchaseOrder $order): void
    {
        $earlier = $this->entities
            ->getRepository(OrderAnswer::class)
            ->findBy(['order' => $order, 'state' => AnswerState::Waiting]);
        foreach ($earlier as $answer) {
            $answer->decide(AnswerState::Overtaken, null);
        }
    }

    /**
     * The order as they would have it, kept as a revision both sides know.
     *
     * @param list<AnsweredLine> $lines
     */
    private function makeItSo(PurchaseOrder $order, array $lines, Person $person): void
    {
        $this->force->revise($order, $person, static function () use ($order, $lines): void {
            foreach ($order->lines() as $line) {
                foreach ($lines as $answered) {
                    if ($answered->line === $line->id) {
                        $line->agreeTo($answered->packs, $answered->price);
                    }
                }
            }
        });
    }

    /** @param list<AnsweredLine> $lines */
    private function confirm(PurchaseOrder $order, array $lines): void
    {
        $days = [];
        foreach ($lines as $line) {
            $days[$line->line] = $line->day;
        }
        $order->acknowledge([] === $days ? $order->wantedOn() : max($days), $this->clock->now(), $days);
    }
}
