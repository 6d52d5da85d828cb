<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** An offer's prices read along with other rows, where no entity is wanted. */
final readonly class StoredPrices
{
    /** Columns for a query over offer o; read() takes them. */
    public const COLUMNS = "o.break_kind, o.break_basis, o.discounts,
        (SELECT GROUP_CONCAT(CONCAT(b.from_packs, '=', b.price) ORDER BY b.from_packs SEPARATOR ';')
            FROM price_break b WHERE b.offer_id = o.id) prices";

    /**
     * @param array{break_kind: string|null, break_basis: string|null, discounts: string|null,
     *      prices: string|null, ...} $row
     *
     * @return PriceBreaks|null of one pack, discounts taken off; null where there is no offer
     */
    public static function read(array $row): ?PriceBreaks
    {
        if (null === $row['prices'] || null === $row['break_kind'] || null === $row['break_basis']) {
            return null;
        }
        $steps = array_map(static function (string $step): array {
            [$from, $price] = explode('=', $step);

            return [$from, $price];
        }, explode(';', $row['prices']));

        return PriceBreaks::of($steps, BreakKind::from($row['break_kind']), BreakBasis::from($row['break_basis']))
            ->after(ChainedDiscounts::read($row['discounts'] ?? ''));
    }
}
