<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Order\OrderFilter;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;

/** The lists of orders as tables to take away, with the fields of our own. */
final readonly class OrderTables
{
    private const MOST_ROWS = 100_000;

    public function __construct(private OrderRows $rows, private OwnFields $own)
    {
    }

    /** @return list<list<string>> the first names the columns */
    public function of(string $look, OrderFilter $filter): array
    {
        return match ($look) {
            'lines' => $this->lines($filter),
            'suppliers' => $this->suppliers($filter),
            default => $this->orders($filter),
        };
    }

    /** @return list<list<string>> */
    private function orders(OrderFilter $filter): array
    {
        $fields = $this->own->of(OwnFieldThing::Order);
        $values = $this->own->valuesOfAll(OwnFieldThing::Order);

        return [
            [
                'order', 'supplier', 'state', 'wanted', 'due', 'lines', 'buyer', 'goods', 'currency',
                ...OwnFields::labels($fields),
            ],
            ...array_map(
                static fn (OrderRow $row): array => [
                    $row->number,
                    $row->supplier,
                    $row->state->value,
                    $row->wantedOn->format('Y-m-d'),
                    $row->dueOn()->format('Y-m-d'),
                    (string) $row->lines,
                    $row->buyer,
                    (string) $row->goods->amount,
                    $row->goods->currency->code,
                    ...OwnFields::cells($fields, $values[$row->id] ?? []),
                ],
                $this->rows->find($filter, 0, self::MOST_ROWS),
            ),
        ];
    }

    /** @return list<list<string>> */
    private function lines(OrderFilter $filter): array
    {
        return [
            [
                'order', 'line', 'supplier', 'item', 'description', 'site', 'due', 'confirmed', 'packs', 'pack',
                'value',
            ],
            ...array_map(
                static fn (array $row): array => [
                    $row['number'],
                    (string) $row['position'],
                    $row['supplier'],
                    $row['code'] ?? '',
                    $row['description'],
                    $row['site'],
                    $row['due'],
                    1 === $row['promised'] ? 'yes' : 'no',
                    $row['packs'],
                    $row['pack'],
                    self::money($row['value']),
                ],
                $this->rows->openLines($filter, 0, self::MOST_ROWS),
            ),
        ];
    }

    /** @return list<list<string>> */
    private function suppliers(OrderFilter $filter): array
    {
        return [
            ['supplier', 'code', 'orders', 'overdue', 'outstanding', 'goods'],
            ...array_map(
                static fn (array $row): array => [
                    $row['supplier'],
                    $row['code'],
                    (string) $row['orders'],
                    (string) $row['late'],
                    self::money($row['outstanding']),
                    self::money($row['goods']),
                ],
                $this->rows->bySupplier($filter),
            ),
        ];
    }

    private static function money(?string $amount): string
    {
        return number_format((float) $amount, 2, '.', '');
    }
}
