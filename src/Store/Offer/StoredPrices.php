<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Sourcing\AgreedPrices;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;

/**
 * An offer's prices read along with other rows, where no entity is wanted.
 *
 * @phpstan-type PriceRow array{break_kind: string|null, break_basis: string|null, discounts: string|null,
 *      prices: string|null, price_content: string|null, price_supplier: int|null, price_item: int|null,
 *      price_trade: string|null, price_group: string|null, ...}
 */
final readonly class StoredPrices
{
    /** Columns for a query over offer o; read() takes them. */
    public const COLUMNS = "o.break_kind, o.break_basis, o.discounts, o.pack_content price_content,
        o.supplier_id price_supplier, o.item_id price_item,
        (SELECT CONCAT(t.currency, t.price_group) FROM supplier t WHERE t.id = o.supplier_id) price_trade,
        (SELECT t.price_group FROM item t WHERE t.id = o.item_id) price_group,
        (SELECT GROUP_CONCAT(CONCAT(b.from_packs, '=', b.price) ORDER BY b.from_packs SEPARATOR ';')
            FROM price_break b WHERE b.offer_id = o.id) prices";

    /**
     * @param PriceRow     $row
     * @param AgreedPrices $agreed what was agreed beyond single offers
     *
     * @return PriceBreaks|null of one pack, as it is to be paid; null where there is no offer
     */
    public static function read(array $row, AgreedPrices $agreed): ?PriceBreaks
    {
        if (null === $row['prices'] || null === $row['break_kind'] || null === $row['break_basis']) {
            return null;
        }
        $steps = array_map(static function (string $step): array {
            [$from, $price] = explode('=', $step);

            return [$from, $price];
        }, explode(';', $row['prices']));

        $own = PriceBreaks::of($steps, BreakKind::from($row['break_kind']), BreakBasis::from($row['break_basis']))
            ->after(ChainedDiscounts::read($row['discounts'] ?? ''));
        $trade = $row['price_trade'] ?? '';
        $holds = $agreed->isEmpty()
            ? null
            : $agreed->holdingFor(
                $row['price_supplier'] ?? 0,
                substr($trade, 3),
                $row['price_item'] ?? 0,
                $row['price_group'] ?? '',
                substr($trade, 0, 3),
            );

        return $holds?->on($own, BigDecimal::of($row['price_content'] ?? '1')) ?? $own;
    }
}
