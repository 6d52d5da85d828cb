<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;

/** A place that holds stock. */
#[ORM\Entity]
class Site
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var Collection<int, Bin> */
    #[ORM\OneToMany(targetEntity: Bin::class, mappedBy: 'site', cascade: ['persist'])]
    private Collection $bins;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $code,
        #[ORM\Column(length: 80)] public readonly string $name,
        #[ORM\Column(length: 200)] public readonly string $address,
        #[ORM\Column(length: 80)] public readonly string $receivingHours,
    ) {
        $this->bins = new ArrayCollection();
    }

    public function addBin(string $code): Bin
    {
        $bin = new Bin($this, $code);
        $this->bins->add($bin);

        return $bin;
    }

    /** @return list<Bin> */
    public function bins(): array
    {
        return array_values($this->bins->toArray());
    }
}
