<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A supplier's notice of what is on its way (a despatch advice). */
#[ORM\Entity(readOnly: true)]
#[ORM\Index(columns: ['tracking'], name: 'despatch_by_tracking')]
class Despatch
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var array<int, string> packs by the line's id */
    #[ORM\Column(type: 'json')]
    private array $packs;

    /**
     * @param array<int, BigDecimal> $packs  by the line's id
     * @param \DateTimeImmutable     $hereOn the day it should be here
     *
     * @throws InvalidValue if nothing has left
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $hereOn,
        #[ORM\Column(length: 60)] public readonly string $carrier,
        #[ORM\Column(length: 60)] public readonly string $tracking,
        array $packs,
    ) {
        $left = array_filter($packs, static fn (BigDecimal $packs): bool => $packs->isPositive());
        if ([] === $left) {
            throw InvalidValue::because('How much of which line has left?');
        }
        $this->packs = array_map(strval(...), $left);
    }

    /** @return array<int, BigDecimal> by the line's id */
    public function packs(): array
    {
        return array_map(BigDecimal::of(...), $this->packs);
    }
}
