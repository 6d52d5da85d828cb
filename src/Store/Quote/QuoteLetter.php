<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Doctrine\ORM\Mapping as ORM;

/** What was written to a supplier about a quote, or came from it, kept as it was. */
#[ORM\Entity]
class QuoteLetter
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'letters'), ORM\JoinColumn(nullable: false)] public readonly Quote $quote,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        /** Whether we wrote it. */
        #[ORM\Column] public readonly bool $ours,
        #[ORM\Column(length: 200)] public readonly string $subject,
        #[ORM\Column(type: 'text')] public readonly string $text,
    ) {
    }
}
