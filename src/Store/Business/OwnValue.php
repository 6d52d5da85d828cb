<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\Mapping as ORM;

/** What stands in a field of the business's own, of one thing. */
#[ORM\Entity]
class OwnValue
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly OwnField $field,
        /** Its id. */
        #[ORM\Id, ORM\Column] public readonly int $thing,
        /** A number with a point, a day as 2026-11-30. */
        #[ORM\Column(length: 200)] public readonly string $content,
    ) {
    }
}
