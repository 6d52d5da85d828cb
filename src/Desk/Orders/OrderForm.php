<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Ordering\PastedLines;
use TallBarrel\Core\Ordering\Shipping;
use TallBarrel\Desk\Shell\AdjustmentRows;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Work\Ordering\AddedLine;
use TallBarrel\Work\Ordering\LaterDelivery;
use TallBarrel\Work\Ordering\LineAims;
use TallBarrel\Work\Ordering\LineChange;
use TallBarrel\Work\Ordering\OrderChanges;
use TallBarrel\Work\Ordering\SupplierMending;

/** Reads the order page's fields. */
final readonly class OrderForm
{
    public static function read(PurchaseOrder $order, Fields $fields): OrderChanges
    {
        return new OrderChanges(
            (int) $fields->text('version'),
            self::lines($order, $fields),
            // What is set apart goes to another draft, after all else is saved.
            'split' === $fields->text('do') ? [] : array_keys($fields->each('remove')),
            self::added($fields),
            self::picked($fields),
            '' === $fields->text('add_site') ? null : (int) $fields->text('add_site'),
            $fields->day('wanted', $fields->text('wanted')),
            self::note($fields),
            new SupplierMending(
                $fields->text('contact', 80),
                $fields->text('email', 180),
                $fields->text('street', 120),
                $fields->text('postcode', 20),
                $fields->text('city', 80),
                $fields->text('country', 2),
                $fields->text('net_days', 3),
            ),
            $fields->problems,
            PastedLines::read($fields->text('paste', 100_000), $fields->numerals, $fields->problems),
            '1' === $fields->text('sweep'),
            AdjustmentRows::read($fields, $order->tax()),
            $fields->tax('order_tax', $fields->text('order_tax', 60)),
            !isset($fields->typed['carrier']) ? null : $fields->attempt(
                'delivery_terms',
                static fn (): Shipping => Shipping::of(
                    $fields->text('deliver_to'),
                    $fields->text('carrier', 60),
                    $fields->text('project', 60),
                    $fields->text('delivery_terms', 80),
                    [$order->deliveryTerms(), ...$order->supplier->allDeliveryTerms()],
                ),
            ),
            !isset($fields->typed['paid_to']) ? null : $fields->text('paid_to', 120),
        );
    }

    /** @return array<int, LineChange> by line; what cannot be read is left out */
    private static function lines(PurchaseOrder $order, Fields $fields): array
    {
        [$quantities, $prices, $codes] = [$fields->each('quantity'), $fields->each('price'), $fields->each('code')];
        [$offers, $costs, $removed] = [
            $fields->each('follow_offer'),
            $fields->each('follow_cost'),
            'split' === $fields->text('do') ? [] : $fields->each('remove'),
        ];
        $days = $fields->each('day');
        [$discounts, $taxes] = [$fields->each('discount'), $fields->each('tax')];
        [$toThem, $toUs] = [$fields->each('to_them'), $fields->each('to_us')];
        [$promises, $accounts, $whom] = array_map($fields->each(...), ['promise', 'account', 'for_whom']);
        $lines = [];
        foreach ($order->lines() as $line) {
            $id = $line->id;
            if (!isset($quantities[$id]) || isset($removed[$id])) {
                continue;
            }
            $packs = $fields->quantity('quantity-'.$id, $quantities[$id]) ?? BigDecimal::zero();
            $price = $fields->price('price-'.$id, $prices[$id] ?? '');
            $day = $fields->day('day-'.$id, $days[$id] ?? '');
            $discount = $fields->attempt(
                'discount-'.$id,
                static fn (): ?PriceDiscount => isset($discounts[$id])
                    ? PriceDiscount::read($discounts[$id], $fields->numerals)
                    : null,
            );
            $tax = $fields->tax('tax-'.$id, $taxes[$id] ?? '');
            if (!$fields->problems->concern('quantity-'.$id) && !$fields->problems->concern('price-'.$id)) {
                $lines[$id] = new LineChange(
                    $packs,
                    $price,
                    $codes[$id] ?? '',
                    isset($offers[$id]),
                    isset($costs[$id]),
                    $day,
                    $discount,
                    $tax,
                    isset($toThem[$id], $toUs[$id])
                        ? [mb_substr($toThem[$id], 0, 200), mb_substr($toUs[$id], 0, 200)]
                        : null,
                    !isset($promises[$id]) && !isset($accounts[$id]) ? null : new LineAims(
                        '' === ($promises[$id] ?? '') ? null : (int) $promises[$id],
                        mb_substr($accounts[$id] ?? '', 0, 20),
                        mb_substr($whom[$id] ?? '', 0, 80),
                    ),
                    self::later($fields, $id),
                );
            }
        }

        return $lines;
    }

    private static function later(Fields $fields, int $line): ?LaterDelivery
    {
        $typed = array_map(static fn (array $each): string => $each[$line] ?? '', [
            $fields->each('later'),
            $fields->each('later_day'),
            $fields->each('later_site'),
        ]);
        $packs = $fields->quantity('later-'.$line, $typed[0]);

        return null === $packs ? null : new LaterDelivery(
            $packs,
            $fields->day('later-'.$line, $typed[1]),
            '' === $typed[2] ? null : (int) $typed[2],
        );
    }

    private static function added(Fields $fields): ?AddedLine
    {
        $words = $fields->text('add');
        if ('' === $words) {
            return null;
        }

        return new AddedLine(
            $words,
            $fields->quantity('add', $fields->text('add_quantity')),
            $fields->price('add', $fields->text('add_price')),
        );
    }

    /** @return array<int, BigDecimal> packs by offer */
    private static function picked(Fields $fields): array
    {
        $picked = [];
        foreach ($fields->each('pick') as $id => $typed) {
            $packs = $fields->quantity('pick-'.$id, $typed);
            if (null !== $packs) {
                $picked[$id] = $packs;
            }
        }

        return $picked;
    }

    /** What is typed to the supplier, with the sentences chosen behind it. */
    private static function note(Fields $fields): string
    {
        $note = trim(implode("\n", [$fields->text('note', 500), ...array_values($fields->each('sentence'))]));
        if (mb_strlen($note) > 500) {
            $fields->refuse('note',
                sprintf('With the sentences chosen these are %d characters; 500 fit.', mb_strlen($note)));
        }

        return mb_substr($note, 0, 500);
    }
}
