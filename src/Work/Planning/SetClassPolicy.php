<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PolicySetting;

/** How the items of a class are replenished from now on. */
final readonly class SetClassPolicy
{
    public function __construct(private EntityManagerInterface $entities, private Audit $audit)
    {
    }

    public function set(PolicySetting $setting, Policy $policy, Person $person): void
    {
        $setting->change($policy);
        $this->audit->note(
            $person,
            'policies',
            sprintf('%s: %s, %s', $setting->key(), $policy->kind->words(), $policy->target->words()),
        );
        $this->entities->flush();
    }
}
