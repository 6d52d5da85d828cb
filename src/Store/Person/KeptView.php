<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use Doctrine\ORM\Mapping as ORM;

/** A way of looking at a list that somebody comes back to, under a name of their own. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'view_once', columns: ['person_id', 'name'])]
class KeptView
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $person,
        #[ORM\Column(length: 40)] public readonly string $name,
        /** What stands in the address behind the question mark. */
        #[ORM\Column(length: 500)] public readonly string $query,
    ) {
    }
}
