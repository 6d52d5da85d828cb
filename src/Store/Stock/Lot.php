<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;

/** A supplier's batch of an item. */
#[ORM\Entity]
class Lot
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\Column(length: 40)] public readonly string $number,
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $expiresOn,
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $madeOn = null,
        /** ISO 3166, two letters. */
        #[ORM\Column(length: 2, options: ['default' => ''])] public readonly string $origin = '',
        /** Where what it is made of comes from, if that is another country; ISO 3166. */
        #[ORM\Column(length: 2, options: ['default' => ''])] public readonly string $rawOrigin = '',
        /** What its supplier calls it, where we call it otherwise. */
        #[ORM\Column(length: 40, options: ['default' => ''])] public readonly string $theirs = '',
    ) {
    }
}
