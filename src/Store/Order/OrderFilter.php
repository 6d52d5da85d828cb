<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Core\Ordering\OrderState;

/** Which orders somebody wants to see, and in what order. */
final readonly class OrderFilter
{
    public const OPEN = 'open';
    public const SETTLED = 'settled';
    public const ALL = 'all';
    /** How they may be sorted: words, and the SQL of it. */
    public const SORTS = [
        'due' => ['by the day due', 'due, o.id'],
        'latest' => ['the latest first', 'o.id DESC'],
        'supplier' => ['by supplier', 's.name, due, o.id'],
        'value' => ['by value', 'home DESC, o.id'],
    ];

    /**
     * @param string      $state    of an order, or one of the constants
     * @param string      $supplier its code; empty for all
     * @param string      $item     its code
     * @param int|null    $site     only orders with a line for it
     * @param int|null    $buyer    a person
     * @param string|null $from     day from which they are due, as 2026-11-30
     * @param string|null $until    and to which
     * @param bool        $late     only those of which something is overdue
     */
    public function __construct(
        public string $words = '',
        public string $state = self::ALL,
        public string $supplier = '',
        public string $item = '',
        public ?int $site = null,
        public ?int $buyer = null,
        public ?string $from = null,
        public ?string $until = null,
        public bool $late = false,
        public string $sort = 'due',
    ) {
    }

    /** @return list<string> states it lets through */
    public function states(): array
    {
        return array_values(
            array_map(
                static fn (OrderState $state): string => $state->value,
                array_filter(
                    OrderState::cases(),
                    fn (OrderState $state): bool => match ($this->state) {
                        self::OPEN => !$state->isSettled(),
                        self::SETTLED => $state->isSettled(),
                        self::ALL => true,
                        default => $state->value === $this->state,
                    },
                ),
            ),
        );
    }

    public function order(): string
    {
        return (self::SORTS[$this->sort] ?? self::SORTS['due'])[1];
    }
}
