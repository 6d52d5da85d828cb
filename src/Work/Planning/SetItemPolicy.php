<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\ItemPolicy;

/** Gives an item a policy of its own, or lets it follow its class again. */
final readonly class SetItemPolicy
{
    public function __construct(private EntityManagerInterface $entities, private Audit $audit)
    {
    }

    /** @param Policy|null $policy null for that of its class */
    public function set(Item $item, ?Policy $policy, Person $person): void
    {
        $own = $this->entities->find(ItemPolicy::class, ['item' => $item]);
        if (null === $policy) {
            if (null !== $own) {
                $this->entities->remove($own);
            }
            $this->audit->note($person, $item->code, 'Follows the policy of its class');
        } else {
            if (null === $own) {
                $this->entities->persist(new ItemPolicy($item, $policy));
            } else {
                $own->change($policy);
            }
            $this->audit->note($person, $item->code, sprintf('Policy of its own: %s', $policy->kind->words()));
        }
        $this->entities->flush();
    }
}
