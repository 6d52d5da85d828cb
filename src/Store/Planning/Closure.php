<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Supplier\Supplier;

/** Days on which a supplier, or we ourselves, are shut. */
#[ORM\Entity]
class Closure implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue if it ends before it begins */
    public function __construct(
        /** Null for our own. */
        #[ORM\ManyToOne] public readonly ?Supplier $supplier,
        #[ORM\Column(name: 'first_day', type: 'date_immutable')] public readonly \DateTimeImmutable $first,
        #[ORM\Column(name: 'last_day', type: 'date_immutable')] public readonly \DateTimeImmutable $last,
        #[ORM\Column(length: 80)] public readonly string $words,
    ) {
        if ($last < $first) {
            throw InvalidValue::because(
                sprintf(
                    'The closure ends on %s, before it begins on %s.',
                    $last->format('j M Y'),
                    $first->format('j M Y'),
                ),
            );
        }
        if ($first->diff($last)->days > 120) {
            throw InvalidValue::because('A closure of more than 120 days is too long to plan around.');
        }
    }

    public function moves(): Moves
    {
        return null === $this->supplier ? Moves::everything() : Moves::allOf($this->supplier);
    }
}
