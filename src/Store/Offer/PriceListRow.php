<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Type\BigDecimalType;

/** A line of a price list beside what stood when it was read. Written in bulk by PriceLists, read here. */
#[ORM\Entity]
#[ORM\Index(columns: ['list_id', 'move', 'percent'], name: 'price_list_row_by_move')]
class PriceListRow
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    public readonly PriceList $list;

    #[ORM\Column(length: 10, enumType: PriceMove::class)]
    public readonly PriceMove $move;

    /** Line of the file; 0 for what is missing there. */
    #[ORM\Column(name: 'file_line')]
    public readonly int $line;

    #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')]
    public readonly ?Offer $offer;

    #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')]
    public readonly ?Item $item;

    #[ORM\Column(length: 40)]
    public readonly string $code;

    #[ORM\Column(length: 160)]
    public readonly string $description;

    #[ORM\Column(length: 30)]
    public readonly string $packName;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 6)]
    public readonly BigDecimal $content;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 6, nullable: true)]
    public readonly ?BigDecimal $oldContent;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    public readonly BigDecimal $minimum;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    public readonly BigDecimal $multiple;

    #[ORM\Column]
    public readonly int $leadDays;

    /** @var list<array{string, string}>|null from, price of one pack before discounts */
    #[ORM\Column(type: 'json', nullable: true)]
    public readonly ?array $oldSteps;

    /** @var list<array{string, string}>|null for what is gone */
    #[ORM\Column(type: 'json', nullable: true)]
    public readonly ?array $steps;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 9, scale: 2, nullable: true)]
    public readonly ?BigDecimal $percent;

    /** What the change costs in a year at what was sold in the last, in the supplier's currency. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    public readonly ?BigDecimal $yearly;

    #[ORM\Column]
    public readonly bool $chosen;

    public function prices(): ?PriceBreaks
    {
        return self::breaks($this->steps);
    }

    public function oldPrices(): ?PriceBreaks
    {
        return self::breaks($this->oldSteps);
    }

    /** @param list<array{string, string}>|null $steps */
    private static function breaks(?array $steps): ?PriceBreaks
    {
        return null === $steps ? null : PriceBreaks::of($steps);
    }
}
