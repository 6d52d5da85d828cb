<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;

/** Says what each person may order without a yes, and who stands in for them. */
final readonly class SetLimits
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * @param array<int, array{anOrder: BigDecimal|null, aMonth: BigDecimal|null, standIn: int|null,
     *      until: \DateTimeImmutable|null}> $asked by the person's id
     * @param Problems $problems takes what stands in the way, by place; nothing is saved then
     */
    public function set(array $asked, Person $by, Problems $problems): void
    {
        $people = $this->entities->getRepository(Person::class)->findBy(['id' => array_keys($asked)]);
        $unlimited = array_filter(
            $people,
            static fn (Person $one): bool => $one->mayApprove() && null === $asked[$one->id]['anOrder'],
        );
        if ([] === $unlimited) {
            $problems->refuse(
                'limits',
                'Somebody has to be able to approve any order: leave one owner without a limit.',
            );
        }
        $this->whole->take(function () use ($asked, $people, $by, $problems): void {
            foreach ($people as $person) {
                ['anOrder' => $anOrder, 'aMonth' => $aMonth, 'standIn' => $standIn, 'until' => $until] =
                    $asked[$person->id];
                $limit = $problems->attempt(
                    'order-'.$person->id,
                    static fn (): SpendingLimit => SpendingLimit::of($anOrder, $aMonth),
                );
                $other = null === $standIn ? null : $this->entities->find(Person::class, $standIn);
                $problems->apply('until-'.$person->id, static fn () => $person->isStoodInForBy($other, $until));
                if (null !== $limit) {
                    $person->limitTo($limit);
                }
            }
            if ($problems->areNone()) {
                $this->audit->note($by, 'limits', 'Changed');
            } else {
                $this->entities->clear();
            }
        });
    }
}
