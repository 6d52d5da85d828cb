<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Replenish\Policy;

/** How the items of one class are replenished. */
#[ORM\Entity]
class PolicySetting implements PlanningRestsOnIt
{
    #[ORM\Embedded(columnPrefix: false)]
    private PolicyColumns $policy;

    public function __construct(
        #[ORM\Id, ORM\Column(length: 1, enumType: ValueClass::class)] public readonly ValueClass $valueClass,
        #[ORM\Id, ORM\Column(length: 12, enumType: Pattern::class)] public readonly Pattern $pattern,
        Policy $policy,
    ) {
        $this->change($policy);
    }

    public function change(Policy $policy): void
    {
        $this->policy = PolicyColumns::of($policy);
    }

    public function policy(): Policy
    {
        return $this->policy->policy();
    }

    public function key(): string
    {
        return $this->valueClass->value.'-'.$this->pattern->value;
    }

    public function moves(): Moves
    {
        return Moves::everything();
    }
}
