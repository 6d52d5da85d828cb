<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Store\Item\ItemSearch;
use TallBarrel\Store\Offer\PriceTerms;
use TallBarrel\Store\Offer\StoredPrices;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** Finds what could be put on an order to a supplier, by parts of words, codes of both sides and GTIN. */
final readonly class LineChoices
{
    private const MOST = 8;

    public function __construct(
        private Connection $connection,
        private PriceTerms $terms,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<LineChoice> what they sell first; of that, what is proposed for the site */
    public function find(Supplier $supplier, Site $site, string $words): array
    {
        if ('' === $words) {
            return [];
        }
        $search = ItemSearch::of($words);
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.code, i.name, i.unit, o.supplier_code, o.pack_name, o.pack_content, o.minimum, o.multiple,
                o.split, '.
                StoredPrices::COLUMNS.
                ", p.listed, p.packs, p.offer_id = o.id AND p.draft_id IS NULL same, p.cover_days,
                COALESCE(h.units, 0) held, COALESCE(c.units, 0) coming,
                (SELECT GROUP_CONCAT(DISTINCT SUBSTRING_INDEX(s.name, ' ', 1) SEPARATOR ', ') FROM offer_in_force f
                    JOIN supplier s ON s.id = f.supplier_id
                    WHERE f.item_id = i.id AND f.supplier_id <> :supplier
                    AND :day BETWEEN f.from_day AND f.until_day) others
             FROM item i
             LEFT JOIN (offer o JOIN offer_in_force own ON own.id = o.id AND :day BETWEEN own.from_day
                AND own.until_day) ON o.item_id = i.id AND o.supplier_id = :supplier
             LEFT JOIN proposal p ON p.item_id = i.id AND p.site_id = :site
             LEFT JOIN on_hand h ON h.item_id = i.id AND h.site_id = :site
             LEFT JOIN (SELECT item_id, SUM(units) units FROM open_line WHERE site_id = :site GROUP BY item_id) c
                ON c.item_id = i.id
             WHERE i.archived_on IS NULL AND (o.supplier_code LIKE :like OR ".$search->condition.')
             ORDER BY o.id IS NULL, i.code = :words DESC, o.supplier_code = :words DESC,
                COALESCE(p.listed AND p.draft_id IS NULL, 0) DESC, i.name LIKE :starts DESC, i.name,
                o.rank LIMIT '.self::MOST,
            [
                'supplier' => $supplier->id,
                'site' => $site->id,
                'day' => $this->clock->now()->format('Y-m-d'),
                'words' => $words,
                'like' => '%'.addcslashes($words, '%_\\').'%',
                'starts' => addcslashes($words, '%_\\').'%',
            ] + $search->values,
        );

        /** @var list<array{code: string, name: string, unit: string, supplier_code: string|null,
         *      pack_name: string|null, pack_content: string|null, minimum: string|null, multiple: string|null,
         *      split: int|null, break_kind: string|null, break_basis: string|null, discounts: string|null,
         *      prices: string|null, price_content: string|null, price_supplier: int|null, price_item: int|null,
         *      price_trade: string|null, price_group: string|null, listed: int|null,
         *      packs: string|null, same: int|null, cover_days: int|float|null,
         *      held: string, coming: string, others: string|null}> $rows */
        return array_map(fn (array $row): LineChoice => $this->choice($row, $supplier), $rows);
    }

    /**
     * @param array{code: string, name: string, unit: string, supplier_code: string|null,
     *      pack_name: string|null, pack_content: string|null, minimum: string|null, multiple: string|null,
     *      split: int|null, break_kind: string|null, break_basis: string|null, discounts: string|null,
     *      prices: string|null, price_content: string|null, price_supplier: int|null, price_item: int|null,
     *      price_trade: string|null, price_group: string|null, listed: int|null,
     *      packs: string|null, same: int|null, cover_days: int|float|null,
     *      held: string, coming: string, others: string|null} $row
     */
    private function choice(array $row, Supplier $supplier): LineChoice
    {
        $pack = $packs = $price = null;
        $proposed = 1 === $row['listed'] && 1 === $row['same'];
        if (null !== $row['pack_name']) {
            $pack = Pack::of($row['pack_name'], $row['pack_content'] ?? '1');
            $rule = BuyingRule::of($pack, $row['minimum'] ?? '1', $row['multiple'] ?? '1', 1 === $row['split']);
            $packs = $proposed ? BigDecimal::of($row['packs'] ?? '0') : BigDecimal::zero();
            $packs = ($packs->isPositive() ? $packs : $rule->packsFor(1))->strippedOfTrailingZeros();
            $prices = StoredPrices::read($row, $this->terms->today());
            $price = null === $prices ? null : Money::of($prices->priceFor($packs), $supplier->currency());
        }

        return new LineChoice(
            $row['code'],
            $row['name'],
            $row['supplier_code'] ?? '',
            Unit::from($row['unit']),
            $pack,
            $packs,
            $price,
            (float) $row['held'],
            (float) $row['coming'],
            null === $row['cover_days'] ? null : (int) $row['cover_days'],
            $proposed,
            $row['others'] ?? '',
        );
    }
}
