<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Ordering\YesRules;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\CategoryApproval;
use TallBarrel\Store\Person\Person;

/** Says what each person may order without a yes, and who stands in for them. */
final readonly class SetLimits
{
    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $business,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * Who is asked of which category, and which changes of a sent order need a new yes; all there is to be.
     *
     * @param array<int, array{category: string, above: BigDecimal|null, asked: int|null}> $categories by place; an
     *      empty name for none
     * @param Problems $problems takes what stands in the way, at category-0 for the first; nothing is saved then
     */
    public function ask(array $categories, YesRules $rules, Person $by, Problems $problems): void
    {
        $wanted = [];
        foreach ($categories as $i => $asked) {
            if ('' !== $asked['category']) {
                $problems->apply('category-'.$i, function () use ($asked, &$wanted): void {
                    $one = $this->approvalOf(...$asked);
                    if (isset($wanted[mb_strtolower($one->category)])) {
                        throw InvalidValue::because(sprintf('%s stands twice.', $one->category));
                    }
                    $wanted[mb_strtolower($one->category)] = $one;
                });
            }
        }
        if (!$problems->areNone()) {
            return;
        }
        $this->whole->take(function () use ($wanted, $rules, $by): void {
            foreach ($this->entities->getRepository(CategoryApproval::class)->findAll() as $known) {
                $this->entities->remove($known);
            }
            $this->entities->flush();
            foreach ($wanted as $one) {
                $this->entities->persist($one);
            }
            $this->business->get()->askAgain($rules);
            $this->audit->note($by, 'limits', 'Who is asked of what changed');
        });
    }

    /** @throws InvalidValue */
    private function approvalOf(string $category, ?BigDecimal $above, ?int $asked): CategoryApproval
    {
        $person = null === $asked ? null : $this->entities->find(Person::class, $asked);
        if (null === $above || null === $person) {
            throw InvalidValue::because('Say above how much, and who is asked.');
        }
        $item = $this->entities->getRepository(Item::class)->findOneBy(['category' => $category])
            ?? throw InvalidValue::because(sprintf('No item is in a category “%s”.', $category));

        return new CategoryApproval($item->category(), $above, $person);
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
