<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\MonthBudget;

/** What may be ordered in a usual month, and in single months that are not usual. */
final readonly class SetBudget
{
    public const USUAL = 'usual';

    public function __construct(private EntityManagerInterface $entities, private CurrentBusiness $business)
    {
    }

    /**
     * @param array<string, BigDecimal|null> $months   as 2026-12; null for as usual
     * @param Problems                       $problems by month, or USUAL
     */
    public function set(?BigDecimal $usual, array $months, Problems $problems): void
    {
        foreach ([self::USUAL => $usual, ...$months] as $place => $amount) {
            if (null !== $amount) {
                $problems->attempt($place, static fn (): BigDecimal => MonthBudget::allowed($amount));
            }
        }
        if (!$problems->areNone()) {
            return;
        }
        $this->business->get()->spendMonthly($usual);
        foreach ($months as $month => $amount) {
            $this->setMonth($month, $amount);
        }
        $this->entities->flush();
    }

    private function setMonth(string $month, ?BigDecimal $amount): void
    {
        $known = $this->entities->find(MonthBudget::class, $month);
        if (null === $amount) {
            if (null !== $known) {
                $this->entities->remove($known);
            }
        } elseif (null !== $known) {
            $known->change($amount);
        } else {
            $this->entities->persist(new MonthBudget($month, $amount));
        }
    }
}
