<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\Tax;

/** Reads the table of charges and allowances: what for, how much, perhaps only below an amount, and its tax. */
final readonly class AdjustmentRows
{
    /** Rows that stand empty below those there are. */
    public const EMPTY = 1;

    /**
     * @param Tax $tax of rows that say nothing of it
     *
     * @return list<AllowanceCharge>|null null where the form has no such table
     */
    public static function read(Fields $fields, Tax $tax): ?array
    {
        if (!isset($fields->typed['adjust_reason'])) {
            return null;
        }
        [$kinds, $amounts, $belows, $taxes] = array_map(
            $fields->each(...),
            ['adjust_kind', 'adjust_amount', 'adjust_below', 'adjust_tax'],
        );
        $adjustments = [];
        foreach ($fields->each('adjust_reason') as $i => $reason) {
            $amount = $amounts[$i] ?? '';
            if ('' === $reason && '' === $amount) {
                continue;
            }
            $read = $fields->attempt('adjust-'.$i, static function () use (
                $fields,
                $kinds,
                $belows,
                $taxes,
                $tax,
                $i,
                $reason,
                $amount,
            ): AllowanceCharge {
                if (mb_strlen($reason) > 80) {
                    throw InvalidValue::because('At most 80 characters fit here.');
                }
                $percent = str_ends_with($amount, '%');
                $figure = '' === $amount ? null : $fields->numerals->price(rtrim($amount, " %\u{a0}"));
                $below = $belows[$i] ?? '';
                $own = $taxes[$i] ?? '';

                return AllowanceCharge::of(
                    'allowance' !== ($kinds[$i] ?? ''),
                    $reason,
                    $percent ? null : $figure,
                    $percent ? $figure : null,
                    '' === $own ? $tax : $fields->readTax($own),
                    '' === $below ? null : $fields->numerals->price($below),
                );
            });
            if (null !== $read) {
                $adjustments[] = $read;
            }
        }

        return $adjustments;
    }
}
