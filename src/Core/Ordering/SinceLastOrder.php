<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/** What of a supplier is not as it was on the last order to them, and should be seen before money goes out. */
final readonly class SinceLastOrder
{
    /** A rate that moved by less is not worth a word (common practice, no source). */
    private const RATE_PERCENT = 2.0;
    private const FACTS = ['email' => 'Email', 'contact' => 'Contact', 'address' => 'Address', 'terms' => 'Terms'];

    /**
     * @param array<string, string> $was  facts of the supplier as the last order kept them; empty where it kept none
     * @param array<string, string> $is   as they are
     * @param BigDecimal            $rateWas how many of their currency one of ours bought
     * @param BigDecimal            $rateIs  and buys
     *
     * @return list<string> in words
     */
    public static function differences(array $was, array $is, BigDecimal $rateWas, BigDecimal $rateIs): array
    {
        $words = [];
        foreach (self::FACTS as $fact => $name) {
            $before = $was[$fact] ?? '';
            if ('' !== $before && $before !== ($is[$fact] ?? '')) {
                $words[] = sprintf('%s was %s', $name, $before);
            }
        }
        $percent = 100 * ($rateWas->toFloat() / $rateIs->toFloat() - 1);
        if (abs($percent) >= self::RATE_PERCENT) {
            $words[] = sprintf(
                'Their currency is %s %% %s than',
                number_format(abs($percent), 1),
                $percent > 0 ? 'dearer' : 'cheaper',
            );
        }

        return $words;
    }
}
