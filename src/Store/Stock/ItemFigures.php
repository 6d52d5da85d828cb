<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** What stands of one item, what moved last and what was ordered last; figures are decimals as text. */
final readonly class ItemFigures
{
    /**
     * @param array<int, float>                 $held      stock units there now, by site that holds any
     * @param list<array<string, string|null>> $balances  site, code, bin, lot, state, held, expires
     * @param list<array<string, string|null>> $movements day, kind, quantity, unit_cost, reference, site, lot, person;
     *                                                    the latest first
     * @param list<array<string, string|null>> $orders    number, supplier, state, due, packs, received, pack_name,
     *                                                    site; the latest first
     * @param list<array<string, string|null>> $adjustments of its forecast by hand, still in force: id, percent, until,
     *                                                    site, reason, person, at
     */
    public function __construct(
        public array $held,
        public array $balances,
        public array $movements,
        public array $orders,
        public array $adjustments,
    ) {
    }

    /** @param array<string, list<array<string, string|null>>> $answers to what StockList::askOfItem() asks */
    public static function in(array $answers): self
    {
        $held = [];
        foreach ($answers['held'] as $row) {
            $held[(int) $row['site_id']] = (float) $row['units'];
        }

        return new self(
            $held,
            $answers['balances'],
            $answers['movements'],
            $answers['orders'],
            $answers['adjustments'],
        );
    }
}
