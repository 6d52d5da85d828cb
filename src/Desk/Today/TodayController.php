<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Today;

use Brick\Math\BigDecimal;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Contracts\Cache\CacheInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Drawing\Bars;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Stock\ServedController;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\WaitingCounts;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Served;
use TallBarrel\Store\Stock\ServedDemand;
use TallBarrel\Store\Stock\StockFigures;

final class TodayController extends AbstractController
{
    #[Route('/', name: 'today', methods: ['GET'])]
    public function today(
        TodayList $list,
        Shell $shell,
        OrderRows $orders,
        Spending $spending,
        StockFigures $stock,
        ServedDemand $demand,
        CurrentBusiness $business,
        ClockInterface $clock,
        CacheInterface $cache,
        WaitingCounts $waiting,
        #[CurrentUser] Person $person,
    ): Response {
        $today = $clock->now()->setTime(0, 0);
        $site = $shell->site();
        $currency = $business->get()->currency;
        $home = static fn (float $amount): Money => Money::of(
            BigDecimal::of(number_format($amount, 2, '.', '')),
            $currency,
        );
        $value = $stock->value($site?->id);
        // Sales end yesterday and change only when somebody brings more.
        $served = $cache->get(
            sprintf('served-money-%s-%d-%d', $today->format('Ymd'), $site->id ?? 0, $waiting->at($site)->imports),
            static fn (): array => $demand->by(
                ServedDemand::WEEK,
                $today,
                ServedController::WEEKS,
                $site?->id,
            ),
        );
        $quarter = $today->modify(sprintf('first day of -%d month', ((int) $today->format('n') - 1) % 3));
        $overview = $spending->overview($today, $quarter, 5);
        $due = array_slice($overview->dueByWeek, 0, 5, true);

        return $this->render('today/today.html.twig', [
            'today' => $today,
            'entries' => $list->entriesFor($site, $person),
            'week' => $this->week($orders->open(), $today, $site?->id),
            'served' => [] === $served ? null : Served::together($served),
            'servedLine' => Sparkline::of(
                array_map(static fn (Served $week): float => $week->share(), $served),
                [],
                280,
                34,
            ),
            'due' => $home(array_sum($due)),
            'dueBars' => Bars::of(
                array_map(
                    static fn (string $monday, float $sum): array => [
                        (string) (int) (new \DateTimeImmutable($monday))->format('W'),
                        $sum,
                    ],
                    array_keys($due),
                    array_values($due),
                ),
            ),
            'budget' => $overview->budget,
            'month' => $today->format('F'),
            'value' => $value,
            'valueMoney' => $home(array_sum($value)),
            'slow' => $home($value['slow']),
            'bought' => $overview->bought,
            'boughtMost' => max([1.0, ...array_values($overview->bought)]),
        ]);
    }

    /**
     * @param list<OrderRow> $orders
     *
     * @return list<array{day: \DateTimeImmutable, orders: list<OrderRow>}> today and the next four working days
     */
    private function week(array $orders, \DateTimeImmutable $today, ?int $site): array
    {
        $week = [];
        for ($day = $today; count($week) < 5; $day = $day->modify('+1 day')) {
            if ([] === $week || (int) $day->format('N') <= 5) {
                $due = array_filter(
                    $orders,
                    static fn (OrderRow $order): bool => 0 === $order->daysFrom($day) && $order->goesTo($site),
                );
                $week[] = ['day' => $day, 'orders' => array_values($due)];
            }
        }

        return $week;
    }
}
