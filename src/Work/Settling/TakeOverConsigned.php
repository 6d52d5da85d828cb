<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Settling\Consigned;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\ConsignedGoods;
use TallBarrel\Store\Settle\ConsignedUse;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Of goods on consignment what was used, or whose day came, becomes ours: its invoice is expected from then on. */
final readonly class TakeOverConsigned
{
    private const SCALE = 3;

    public function __construct(
        private EntityManagerInterface $entities,
        private ConsignedGoods $goods,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<TakenOver> every line with goods that are theirs, and what of them is ours by now */
    public function found(): array
    {
        $lines = $this->goods->lines();
        $held = $this->goods->held($lines);
        $came = $this->goods->came($lines);
        $theirs = [];
        foreach ($lines as $n => $line) {
            $theirs[$line->item->id ?? 0][$n] = $line->pack()->toStockUnits($line->stillTheirs());
        }
        $used = [];
        foreach ($theirs as $item => $units) {
            $used += Consigned::used($units, $held[$item] ?? BigDecimal::zero());
        }
        $found = [];
        foreach ($lines as $n => $line) {
            $packs = ($used[$n] ?? BigDecimal::zero())
                ->dividedBy($line->pack()->content, self::SCALE, RoundingMode::HalfUp);
            $packs = BigDecimal::min($packs, $line->stillTheirs());
            [$overdue, $until] = $this->over($line, $line->stillTheirs()->minus($packs), $came[$line->id] ?? []);
            $there = $held[$line->item->id ?? 0] ?? BigDecimal::zero();
            $found[] = new TakenOver($line, $there, $packs, $overdue, $until);
        }

        return $found;
    }

    /**
     * What is left of them came last.
     *
     * @param list<array{day: string, packs: string}> $came the latest first
     *
     * @return array{BigDecimal, \DateTimeImmutable|null} packs whose day came, and when it comes for the oldest other
     */
    private function over(OrderLine $line, BigDecimal $left, array $came): array
    {
        $days = $line->offer?->consignedDays() ?? 0;
        if (0 === $days) {
            return [BigDecimal::zero(), null];
        }
        $until = null;
        foreach ($came as $one) {
            $end = (new \DateTimeImmutable($one['day']))->add(new \DateInterval(sprintf('P%dD', $days)));
            if ($end <= $this->clock->now() || !$left->isPositive()) {
                break;
            }
            $until = $end;
            $left = $left->minus($one['packs']);
        }

        return [BigDecimal::max($left, BigDecimal::zero()), $until];
    }

    /** @return list<TakenOver> what became ours */
    public function take(Person $by): array
    {
        return $this->whole->take(function () use ($by): array {
            // Two at once do it one after the other, and each looks at what is there by then.
            $this->entities->getConnection()->fetchOne('SELECT id FROM business FOR UPDATE');
            foreach ($this->goods->lines() as $line) {
                $this->entities->refresh($line, LockMode::PESSIMISTIC_WRITE);
            }
            $taken = array_values(array_filter(
                $this->found(),
                static fn (TakenOver $one): bool => $one->packs()->isPositive(),
            ));
            $today = $this->clock->now()->setTime(0, 0);
            foreach ($taken as $one) {
                $one->line->takeOver($one->packs());
                foreach ([[$one->used, true], [$one->overdue, false]] as [$packs, $isUsed]) {
                    if ($packs->isPositive()) {
                        $this->entities->persist(new ConsignedUse($one->line, $packs, $isUsed, $today, $by));
                    }
                }
                $this->audit->note($by, $one->line->order->number, sprintf(
                    '%s of %s are ours now, from consignment',
                    $one->packs()->strippedOfTrailingZeros(),
                    $one->line->description,
                ));
            }

            return $taken;
        });
    }
}
