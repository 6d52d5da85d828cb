<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\ItemPolicy;
use TallBarrel\Store\Planning\SitePolicy;
use TallBarrel\Store\Site\Site;

/** Gives an item a policy of its own, everywhere or at one site, or lets it follow what is wider again. */
final readonly class SetItemPolicy
{
    public function __construct(private EntityManagerInterface $entities, private Audit $audit)
    {
    }

    /**
     * @param Policy|null $policy null for that of its class, or at a site for that of everywhere
     * @param Site|null   $site   null for everywhere
     */
    public function set(Item $item, ?Policy $policy, Person $person, ?Site $site = null): void
    {
        $own = null === $site
            ? $this->entities->find(ItemPolicy::class, ['item' => $item])
            : $this->entities->find(SitePolicy::class, ['item' => $item, 'site' => $site]);
        $at = null === $site ? '' : ' at '.$site->name();
        if (null === $policy) {
            if (null !== $own) {
                $this->entities->remove($own);
            }
            $this->audit->note(
                $person,
                $item->code,
                null === $site ? 'Follows the policy of its class' : 'Follows its policy of everywhere'.$at,
            );
        } else {
            if (null === $own) {
                $this->entities->persist(
                    null === $site ? new ItemPolicy($item, $policy) : new SitePolicy($item, $site, $policy),
                );
            } else {
                $own->change($policy);
            }
            $this->audit->note($person, $item->code, sprintf('Policy of its own%s: %s', $at, $policy->kind->words()));
        }
        $this->entities->flush();
    }
}
