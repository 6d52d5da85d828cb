<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\TransferCount;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Type\BigDecimalType;

/** One item, and once it has left one lot of it, between two sites; in stock units. */
#[ORM\Entity]
class TransferLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $sent = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $came = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $bad = null;

    /** What is wrong with what is bad, or that what is missing is lost. */
    #[ORM\Column(length: 120, options: ['default' => ''])]
    private string $words = '';

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly Transfer $transfer,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] private BigDecimal $wanted,
        /** Empty where it has none, or as long as none was picked. */
        #[ORM\Column(length: 40, options: ['default' => ''])] private string $lot,
        /** Of the form that asked for it; what was set apart has none. */
        #[ORM\Column(length: 60, unique: true, nullable: true)] public readonly ?string $idempotencyKey,
    ) {
        $this->want($wanted);
    }

    /** @throws InvalidValue if it is not above 0 or no whole number of what cannot be divided */
    public function want(BigDecimal $units): void
    {
        if (!$units->isPositive()) {
            throw InvalidValue::because('Nothing to move: the quantity must be above 0.');
        }
        $this->mustBeCountable($units);
        $this->wanted = $units;
    }

    /** What was asked for is picked in this lot, and so many of it. */
    public function pick(string $lot, BigDecimal $units): void
    {
        $this->lot = $lot;
        $this->sent = $units;
    }

    /** @throws InvalidValue if it cannot be counted so */
    public function arrive(TransferCount $arrival): void
    {
        $this->mustBeCountable($arrival->came);
        $this->mustBeCountable($arrival->bad);
        $this->came = $arrival->came;
        $this->bad = $arrival->bad;
        $this->words = mb_substr(
            $arrival->missing()->isPositive() && $arrival->lost ? trim('lost on the way. '.$arrival->why)
                : trim($arrival->why),
            0,
            120,
        );
    }

    /** @throws InvalidValue */
    private function mustBeCountable(BigDecimal $units): void
    {
        if (!$this->item->unit->isDivisible() && $units->strippedOfTrailingZeros()->getScale() > 0) {
            throw InvalidValue::because(sprintf('%s %s; count whole ones.', $units, $this->item->unit->symbol()));
        }
    }

    public function wanted(): BigDecimal
    {
        return $this->wanted;
    }

    public function lot(): string
    {
        return $this->lot;
    }

    public function sent(): ?BigDecimal
    {
        return $this->sent;
    }

    public function came(): ?BigDecimal
    {
        return $this->came;
    }

    public function bad(): ?BigDecimal
    {
        return $this->bad;
    }

    public function words(): string
    {
        return $this->words;
    }
}
