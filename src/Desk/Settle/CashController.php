<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\CashCalendar;
use TallBarrel\Core\Settling\CashFlow;
use TallBarrel\Core\Settling\CashKind;
use TallBarrel\Desk\Drawing\CashChart;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Settle\CashFlows;

/** What will have to be paid, week by week for half a year, and what would be if an order came on another day. */
#[Route('/settle/cash')]
#[AboutMoney]
final class CashController extends AbstractController
{
    private const MONTHS = 5;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly CashFlows $flows,
        private readonly Budgets $budgets,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'cash', methods: ['GET'])]
    public function show(Request $request): Response
    {
        return $this->page($request, Fields::none());
    }

    /** What there is to pay with now. */
    #[Route('', name: 'cash_balance', methods: ['POST']), IsGranted('ROLE_RELEASE')]
    public function balance(Request $request): Response
    {
        $fields = Fields::of($request);
        $amount = $fields->signed('cash', $fields->text('cash', 20));
        if (!$fields->isGood()) {
            return $this->page($request, $fields);
        }
        $this->business->get()->has($amount, $this->clock->now());
        $this->entities->flush();

        return $this->redirectToRoute('cash');
    }

    #[Route('.{format}', name: 'cash_file', requirements: ['format' => TakenFile::FORMATS], methods: ['GET'])]
    public function takeOut(string $format, TakenFile $file): Response
    {
        $flows = $this->flows->from($this->clock->now());
        usort($flows, static fn (CashFlow $a, CashFlow $b): int => $a->day <=> $b->day);

        return $file->of('cash', [
            ['day', 'kind', 'number', 'supplier', 'amount', 'currency'],
            ...array_map(static fn (CashFlow $one): array => [
                $one->day->format('Y-m-d'), $one->kind->words(), $one->of, $one->supplier,
                (string) $one->amount->amount, $one->amount->currency->code,
            ], $flows),
        ], $format, 'Cash');
    }

    private function page(Request $request, Fields $fields): Response
    {
        $today = $this->clock->now()->setTime(0, 0);
        $business = $this->business->get();
        $zero = Money::zero($business->currency);
        $flows = $this->flows->from($today);
        $calendar = CashCalendar::of($today, $flows, $zero, $business->cash());
        $orders = [];
        foreach ($flows as $flow) {
            if (CashKind::Ordered === $flow->kind) {
                $orders[$flow->of] = $flow->supplier;
            }
        }
        ksort($orders);
        $read = Fields::query($request);
        $order = $read->text('move', 20);
        $to = isset($orders[$order]) ? $read->day('to', $read->text('to', 10)) : null;
        $then = null === $to ? null : CashCalendar::of(
            $today,
            $this->flows->from($today, [$order => $to]),
            $zero,
            $business->cash(),
        );

        return $this->render('settle/cash.html.twig', [
            'calendar' => $calendar,
            'chart' => CashChart::of($then ?? $calendar),
            'then' => $then,
            'orders' => $orders,
            'move' => $order,
            'to' => $to,
            'wrong' => $read->errors()['to'] ?? null,
            'budgets' => $this->budgets->months($today, $today, self::MONTHS),
            'cash' => $business->cash(),
            'cashOn' => $business->cashOn(),
            'kinds' => CashKind::cases(),
            'fields' => $fields,
            'today' => $today,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
