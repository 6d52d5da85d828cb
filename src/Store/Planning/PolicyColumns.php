<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;

/** A policy as it is kept. */
#[ORM\Embeddable]
final readonly class PolicyColumns
{
    public function __construct(
        #[ORM\Column(length: 20, enumType: PolicyKind::class)] private PolicyKind $kind,
        #[ORM\Column(length: 8)] private string $target,
        #[ORM\Column] private float $service,
        #[ORM\Column(nullable: true)] private ?float $amount,
        #[ORM\Column(nullable: true)] private ?float $minimum,
        #[ORM\Column(options: ['default' => false])] private bool $beyond,
    ) {
    }

    public static function of(Policy $policy): self
    {
        return new self(
            $policy->kind,
            $policy->target->kind,
            $policy->target->level,
            $policy->amount,
            $policy->minimum,
            $policy->beyond,
        );
    }

    public function policy(): Policy
    {
        return Policy::of(
            $this->kind,
            ServiceTarget::of($this->target, $this->service),
            $this->amount,
            $this->minimum,
            $this->beyond,
        );
    }
}
