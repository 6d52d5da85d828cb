<?php

declare(strict_types=1);

namespace TallBarrel\Store\Import;

use Doctrine\ORM\Mapping as ORM;

/** What a person said a heading of somebody else's file means. */
#[ORM\Entity]
class KnownHeading
{
    public function __construct(
        #[ORM\Id, ORM\Column(length: 20)] public readonly string $kind,
        /** In small letters. */
        #[ORM\Id, ORM\Column(length: 80)] public readonly string $heading,
        /** Ours; empty for one that is left out. */
        #[ORM\Column(name: 'meaning', length: 40)] public readonly string $column,
    ) {
    }
}
