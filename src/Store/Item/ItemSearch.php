<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

/**
 * How an item is found by what somebody types: every word has to be part of its code, its name, a further name, its
 * category, a supplier's code for it, or be the beginning of a GTIN of it or of one of its packs.
 */
final readonly class ItemSearch
{
    private const MOST_WORDS = 6;

    /** @param array<string, string> $values */
    private function __construct(public string $condition, public array $values)
    {
    }

    /**
     * @param string $typed nothing finds everything
     * @param string $item  alias of the table of items
     * @param (callable(string, string): list<int>)|null $elsewhere items that a supplier's code (by any part) or a
     *      pack's GTIN (by its beginning) is of, looked up before; null to look them up along
     */
    public static function of(string $typed, string $item = 'i', ?callable $elsewhere = null): self
    {
        $words = preg_split('/\s+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        $conditions = $values = [];
        foreach (array_slice($words, 0, self::MOST_WORDS) as $n => $word) {
            $part = '%'.addcslashes($word, '%_\\').'%';
            // One text to look through is half the work of four; the plainer of the two orders of letters that tell no
            // accents apart halves it again.
            $condition = sprintf(
                'CONCAT_WS(\' \', %1$s.code, %1$s.name, %1$s.further_names, %1$s.category)
                    COLLATE utf8mb4_general_ci LIKE :word%2$d',
                $item,
                $n,
            );
            $values['word'.$n] = $part;
            // Suppliers' codes and GTINs have digits in them.
            if (1 === preg_match('/\d/', $word)) {
                $begins = self::beginning($word);
                $values['begin'.$n] = $begins;
                $condition .= sprintf(' OR %s.gtin LIKE :begin%d', $item, $n).(null === $elsewhere
                    ? sprintf(
                        ' OR %1$s.id IN (SELECT item_id FROM offer WHERE supplier_code LIKE :word%2$d)
                          OR %1$s.id IN (SELECT item_id FROM item_pack WHERE gtin LIKE :begin%2$d)',
                        $item,
                        $n,
                    )
                    : sprintf(' OR %s.id IN (%s)', $item, implode(', ', [0, ...$elsewhere($part, $begins)])));
            }
            $conditions[] = '('.$condition.')';
        }

        return new self([] === $conditions ? '1 = 1' : implode(' AND ', $conditions), $values);
    }

    /** However many zeros stand before a GTIN: it is kept with 14 digits. */
    private static function beginning(string $word): string
    {
        return ctype_digit($word) && strlen($word) >= 8
            ? str_pad($word, 14, '0', \STR_PAD_LEFT)
            : addcslashes($word, '%_\\').'%';
    }
}
