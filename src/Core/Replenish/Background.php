<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\PooledSeason;
use TallBarrel\Core\Demand\ValueClass;

/** What every item of one planning run shares. */
final readonly class Background
{
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
        public \DateTimeImmutable $now,
        public PlanningOptions $options,
        public array $suppliers,
        public array $classes,
        public array $policies,
        public array $seasons,
        public array $lastPrices,
        public ?array $listed,
        public ?int $listSite,
        public ?float $coverDays,
        public float $orderCost,
        public float $holdingShare,
        public Newcomers $alike = new Newcomers(),
        public Ways $ways = new Ways(),
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

    public function isOnList(int $item, int $site): bool
    {
        return (null === $this->listed || isset($this->listed[$item]))
            && (null === $this->listSite || $this->listSite === $site);
    }
}
