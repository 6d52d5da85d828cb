<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Store\Type\BigDecimalType;

/** A further unit of an item: a set of 4, a box of 12, perhaps with a GTIN of its own. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'item_pack_name', columns: ['item_id', 'name'])]
class ItemPack
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public const LONGEST = 20;

    #[ORM\Column(length: self::LONGEST)]
    private string $name;

    /** Stock units in it. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $quantity;

    #[ORM\Column(length: 14, nullable: true, unique: true)]
    private ?string $gtin = null;

    /** @throws InvalidValue */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'packs'), ORM\JoinColumn(nullable: false)] public readonly Item $item,
        string $name,
        BigDecimal $quantity,
        ?Gtin $gtin,
    ) {
        $this->change($name, $quantity, $gtin);
    }

    /** @throws InvalidValue without a name, or with nothing in it */
    public function change(string $name, BigDecimal $quantity, ?Gtin $gtin): void
    {
        if ('' === trim($name)) {
            throw InvalidValue::because('Say what the pack is called, such as box.');
        }
        if (1 === preg_match('/[=;]/', $name)) {
            throw InvalidValue::because(
                sprintf('“%s” cannot be the name of a pack: files write = and ; behind it.', $name),
            );
        }
        if (!$quantity->isPositive()) {
            throw InvalidValue::because(sprintf('A pack of %s holds nothing; expected more than 0.', $quantity));
        }
        $this->name = trim($name);
        $this->quantity = $quantity;
        $this->gtin = $gtin?->digits;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function quantity(): BigDecimal
    {
        return $this->quantity;
    }

    public function gtin(): ?Gtin
    {
        return null === $this->gtin ? null : Gtin::of($this->gtin);
    }
}
