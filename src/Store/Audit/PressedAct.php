<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\ORM\Mapping as ORM;

/**
 * A form that was sent and did something: written with what it did, in its transaction, so that it is there if and only
 * if that was done.
 */
#[ORM\Entity(readOnly: true)]
#[ORM\Index(columns: ['at'], name: 'pressed_act_at')]
class PressedAct
{
    public function __construct(
        /** SHA-256 of who sent what where, by which press. */
        #[ORM\Id, ORM\Column(name: 'press', length: 64)] public readonly string $key,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        /** The page that followed. */
        #[ORM\Column(length: 500, nullable: true)] public readonly ?string $ledTo = null,
    ) {
    }
}
