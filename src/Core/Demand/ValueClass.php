<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * A, B or C by the value of what is sold in a year: A makes up the first 80 %, B the next 15 %, C the rest.
 * Source: Dickie, "ABC Inventory Analysis Shoots for Dollars, Not Pennies", Factory Management and Maintenance 109,
 * 1951;
 * the shares are common practice.
 */
enum ValueClass: string
{
    case A = 'A';
    case B = 'B';
    case C = 'C';

    private const A_SHARE = 0.8;
    private const B_SHARE = 0.95;

    /**
     * @param array<int, float> $values by item
     *
     * @return array<int, self>
     */
    public static function of(array $values): array
    {
        arsort($values);
        $total = array_sum($values);
        $before = 0.0;
        $classes = [];
        foreach ($values as $item => $value) {
            $classes[$item] = match (true) {
                $value <= 0, $total <= 0 => self::C,
                $before < self::A_SHARE * $total => self::A,
                $before < self::B_SHARE * $total => self::B,
                default => self::C,
            };
            $before += $value;
        }

        return $classes;
    }
}
