<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What to leave out when the money does not reach: what hurts least for the money. */
final readonly class BudgetCut
{
    /**
     * Lines are kept in the order of margin at risk for each unit of money, the greatest first; one that no longer fits
     * is left out and smaller ones after it may still fit. Source of the rule: Dantzig, "Discrete-Variable Extremum
     * Problems", Operations Research 5(2), 1957.
     *
     * @param array<int, array{value: float, atRisk: float, mustKeep: bool}> $lines by key; what must be kept is kept in
     *      any case
     *
     * @return list<int> keys left out
     */
    public static function of(array $lines, float $budget): array
    {
        $left = $budget;
        $optional = [];
        foreach ($lines as $key => $line) {
            if ($line['mustKeep']) {
                $left -= $line['value'];
            } elseif ($line['value'] > 0) {
                $optional[$key] = $line['atRisk'] / $line['value'];
            }
        }
        arsort($optional);
        $cut = [];
        foreach ($optional as $key => $ignored) {
            if ($lines[$key]['value'] <= $left) {
                $left -= $lines[$key]['value'];
            } else {
                $cut[] = $key;
            }
        }

        return $cut;
    }
}
