<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\PooledSeason;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Ordering\OrderChance;

/** What every item of one planning run shares. */
final class Background
{
    /** @var array<string, OrderChance> by supplier and days, so that a calendar is looked through once for all items */
    private array $chances = [];
    /** @var array<string, string> by category */
    private array $marks = [];

    /**
     * @param array<int, SupplierTerms>  $suppliers
     * @param array<int, ValueClass>     $classes    by item
     * @param array<string, Policy>      $policies   by class
     * @param array<string, PooledSeason> $seasons   by category
     * @param array<int, BigDecimal>     $lastPrices by offer
     * @param array<int, true>|null      $listed     items of the order list; null where there is none
     * @param int|null                   $listSite   its site; null for all
     * @param float|null                 $coverDays  days to cover, where the run asks for it
     */
    public function __construct(
        public readonly \DateTimeImmutable $now,
        public readonly PlanningOptions $options,
        public readonly array $suppliers,
        public readonly array $classes,
        public readonly array $policies,
        public readonly array $seasons,
        public readonly array $lastPrices,
        public readonly ?array $listed,
        public readonly ?int $listSite,
        public readonly ?float $coverDays,
        public readonly float $orderCost,
        public readonly float $holdingShare,
        public readonly Newcomers $alike = new Newcomers(),
        public readonly Ways $ways = new Ways(),
    ) {
    }

    public function today(): \DateTimeImmutable
    {
        return $this->now->setTime(0, 0);
    }

    /** Weeks from a day of the past to yesterday; 0 for this week and what is to come. */
    public function weeksAgo(string $day): int
    {
        $yesterday = $this->today()->modify('-1 day');
        $days = (int) (new \DateTimeImmutable($day, $yesterday->getTimezone()))->diff($yesterday)->format('%r%a');

        return intdiv(max(0, $days), 7);
    }

    /** The next chance to order from a supplier what takes so many days to come; null where it is not known. */
    public function chance(?int $supplier, int $days): ?OrderChance
    {
        return null === $supplier || !isset($this->suppliers[$supplier])
            ? null
            : $this->chances[$supplier.' '.$days] ??= $this->suppliers[$supplier]->orderDays->chance($this->now, $days);
    }

    /** What tells the season of a category from another, to three decimals; empty where it has none. */
    public function seasonMark(string $category): string
    {
        return $this->marks[$category] ??= isset($this->seasons[$category])
            ? hash('xxh128', serialize(array_map(
                static fn (float $factor): float => round($factor, 3),
                $this->seasons[$category]->figures(),
            )))
            : '';
    }

    public function isOnList(int $item, int $site): bool
    {
        return (null === $this->listed || isset($this->listed[$item]))
            && (null === $this->listSite || $this->listSite === $site);
    }
}
