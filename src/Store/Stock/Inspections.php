<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Receiving\InspectedLot;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;

/** What came of looking at goods before. */
final readonly class Inspections
{
    /** The latest; what was before them no longer matters. */
    private const LOOKED_BACK = 120;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<InspectedLot> of one item from one supplier, the oldest first */
    public function before(Item $item, ?Supplier $supplier): array
    {
        /** @var list<Inspection> $found */
        $found = $this->entities->getRepository(Inspection::class)->findBy(
            ['item' => $item, 'supplier' => $supplier],
            ['id' => 'DESC'],
            self::LOOKED_BACK,
        );

        return array_map(static fn (Inspection $one): InspectedLot => new InspectedLot(
            max(1, (int) ceil($one->units->toFloat())),
            $one->bad,
            $one->accepted,
        ), array_reverse($found));
    }
}
