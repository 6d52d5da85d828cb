<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** One line of the stock ledger; never changed or removed. Written by the Ledger alone. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'stock_movement')]
/* What stood anywhere on a past day is summed from this index alone. */
#[ORM\Index(columns: ['item_id', 'site_id', 'lot', 'day', 'quantity'], name: 'movement_worth')]
#[ORM\Index(columns: ['day', 'item_id', 'site_id', 'state', 'lot', 'quantity'], name: 'movement_since')]
#[ORM\Index(columns: ['kind', 'day'], name: 'movement_kind')]
#[ORM\Index(columns: ['item_id', 'site_id', 'day'], name: 'movement_of_item')]
#[ORM\Index(columns: ['item_id', 'day'], name: 'movement_latest')]
class Movement
{
    #[ORM\Id, ORM\Column(type: 'bigint'), ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 20, enumType: StockState::class)] public readonly StockState $state,
        /** Empty for items without lots. */
        #[ORM\Column(length: 40)] public readonly string $lot,
        #[ORM\Column(length: 20, enumType: MovementKind::class)] public readonly MovementKind $kind,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
        /** Of one stock unit, in the home currency. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6, nullable: true),]
        public readonly ?BigDecimal $unitCost,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 60)] public readonly string $reference,
        #[ORM\ManyToOne] public readonly ?Person $person,
        /** What booked it, and its place therein: the same thing cannot be booked twice. */
        #[ORM\Column(length: 80, nullable: true, unique: true)] public readonly ?string $idempotencyKey,
    ) {
    }
}
