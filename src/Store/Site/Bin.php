<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\ORM\Mapping as ORM;

/** A shelf position in a site. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'bin_code', columns: ['site_id', 'code'])]
class Bin
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'bins'), ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 20)] public readonly string $code,
    ) {
    }
}
