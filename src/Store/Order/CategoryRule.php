<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use TallBarrel\Store\OneTrip;

/** A CategoryApproval as it is read beside orders: who is asked above what amount. */
final readonly class CategoryRule
{
    /**
     * @param BigDecimal $above before tax, in the home currency
     * @param int        $asked a person, and their first name
     */
    private function __construct(
        public string $category,
        public BigDecimal $above,
        public int $asked,
        public string $firstName,
    ) {
    }

    /** All of them, asked along with other things: see in(). */
    public static function ask(OneTrip $trip): void
    {
        $trip->ask(
            'category rules',
            ['category', 'above', 'asked', 'name'],
            'category',
            "SELECT a.category, a.above, a.asked_id asked, SUBSTRING_INDEX(p.name, ' ', 1) name
             FROM category_approval a JOIN person p ON p.id = a.asked_id",
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<self> by category
     */
    public static function in(array $answers): array
    {
        return array_map(
            static fn (array $row): self => new self(
                (string) $row['category'],
                BigDecimal::of($row['above'] ?? '0'),
                (int) $row['asked'],
                (string) $row['name'],
            ),
            $answers['category rules'],
        );
    }
}
