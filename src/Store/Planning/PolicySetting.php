<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;

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

    /**
     * Where to begin: more service where it is cheap or matters, by how demand comes. Common practice, no source.
     *
     * @return list<self> one for each class
     */
    public static function standard(): array
    {
        $service = [
            ValueClass::A->value => [0.97, 0.96, 0.95, 0.93],
            ValueClass::B->value => [0.96, 0.95, 0.94, 0.92],
            ValueClass::C->value => [0.95, 0.94, 0.92, 0.9],
        ];
        $settings = [];
        foreach (ValueClass::cases() as $class) {
            foreach ([Pattern::Smooth, Pattern::Erratic, Pattern::Intermittent, Pattern::Lumpy] as $i => $pattern) {
                $settings[] = new self($class, $pattern, Policy::of(
                    PolicyKind::OrderUpTo,
                    ServiceTarget::of(ServiceTarget::CYCLE, $service[$class->value][$i]),
                ));
            }
        }

        return $settings;
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
