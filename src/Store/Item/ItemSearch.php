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
    /** The innodb_ft_min_token_size of MariaDB, as it comes. */
    private const LEAST_INDEXED = 3;

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

    /**
     * By the beginnings of words alone, which the full-text index finds at once.
     *
     * @return self|null null where the index cannot tell: it knows no words of less than three letters
     */
    public static function byBeginnings(string $typed, string $item = 'i'): ?self
    {
        $words = preg_split('/[^\p{L}\p{N}]+/u', $typed, -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        foreach ($words as $word) {
            if (mb_strlen($word) < self::LEAST_INDEXED) {
                return null;
            }
        }

        return [] === $words ? null : new self(
            sprintf(
                'MATCH(%1$s.code, %1$s.name, %1$s.further_names, %1$s.category) AGAINST(:begins IN BOOLEAN MODE)',
                $item,
            ),
            ['begins' => implode(' ', array_map(
                static fn (string $word): string => '+'.$word.'*',
                array_slice($words, 0, self::MOST_WORDS),
            ))],
        );
    }
}
