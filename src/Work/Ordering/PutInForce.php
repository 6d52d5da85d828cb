<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Core\Ordering\YesRule;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Makes a sent order different: what it was and what it becomes are both kept as revisions. */
final readonly class PutInForce
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Amendments $amendments,
        private Approval $approval,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Inside the caller's transaction.
     *
     * @param callable(): void $change
     * @param Person|null      $madeBy whose change it is; null for the supplier's
     *
     * @throws Refused if nothing is to come on the order, the person's limit does not reach, or somebody else has to
     *                 say yes
     */
    public function revise(
        PurchaseOrder $order,
        Person $person,
        callable $change,
        ?Person $madeBy = null,
    ): RevisionChange {
        $before = OrderRevision::of($order, $order->buyer, $order->sentAt() ?? $this->clock->now());
        $cost = $order->homeTotal();
        if ([] === $this->amendments->sent($order)) {
            $this->entities->persist($before);
        }
        $order->revise($change);
        $after = OrderRevision::of($order, $person, $this->clock->now());
        $this->entities->persist($after);
        $different = $after->since($before);
        match ($this->business->get()->yesRules()->forAll($different)) {
            YesRule::Never => null,
            YesRule::BeyondLimit => $order->homeTotal()->isGreaterThan($cost)
                ? $this->mustReachSoFar($order, $person)
                : null,
            YesRule::Always => $this->mustBeSomebodyElse($person, $madeBy),
        };

        return $different;
    }

    /** @throws Refused */
    private function mustReachSoFar(PurchaseOrder $order, Person $person): void
    {
        $objection = $this->approval->objection($order, $person);
        if (null !== $objection) {
            throw new Refused(sprintf(
                'It goes beyond %s’s limit: %s. Somebody with a higher one has to say yes.',
                $person->firstName(),
                $objection,
            ));
        }
    }

    /** @throws Refused unless nobody else is there who could */
    private function mustBeSomebodyElse(Person $person, ?Person $madeBy): void
    {
        $others = array_filter(
            $this->entities->getRepository(Person::class)->findAll(),
            static fn (Person $one): bool => $one->id !== $madeBy?->id && $one->mayApprove() && !$one->isBlocked(),
        );
        $itIsOne = in_array($person->id, array_map(static fn (Person $one): int => $one->id, $others), true);
        if ([] !== $others && !$itIsOne) {
            throw new Refused(sprintf(
                'Such a change needs a yes of somebody else: %s. “Who approves what” says which.',
                implode(' or ', array_map(static fn (Person $one): string => $one->firstName(), $others)),
            ));
        }
    }
}
