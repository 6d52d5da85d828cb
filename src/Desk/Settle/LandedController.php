<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\BillingHistory;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Landed;

/** What goods truly cost, beside what was planned; and what became of an order, a receipt, a supplier or an item. */
#[Route('/settle')]
#[AboutMoney]
final class LandedController extends AbstractController
{
    /** Days looked back. */
    private const SINCE = [92, 183, 365];

    #[Route('/landed', name: 'landed', methods: ['GET'])]
    public function landed(Request $request, Landed $landed, ClockInterface $clock): Response
    {
        $by = match ($request->query->getString('by')) {
            'item' => 'item',
            'receipt' => 'receipt',
            default => 'supplier',
        };
        $days = NumbersInAddresses::read($request, 'days');
        $days = in_array($days, self::SINCE, true) ? $days : self::SINCE[0];

        return $this->render('settle/landed.html.twig', [
            'by' => $by,
            'days' => $days,
            'since' => self::SINCE,
            'rows' => $landed->by($by, $clock->now()->modify(sprintf('-%d days', $days))),
        ]);
    }

    #[Route('/history/{of}/{which}', name: 'billing', methods: ['GET'],
        requirements: ['of' => 'order|receipt|supplier|item', 'which' => '.{1,60}'])]
    public function history(
        string $of,
        string $which,
        BillingHistory $history,
        Deposits $deposits,
        EntityManagerInterface $entities,
    ): Response {
        $known = match ($of) {
            'order' => 'order',
            'receipt' => 'receipt',
            'item' => 'item',
            default => 'supplier',
        };
        $rows = $history->of($known, $which);
        $order = 'order' === $known
            ? $entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $which])
            : null;
        $sums = [];
        foreach ($rows as $row) {
            foreach (['ordered_value', 'invoiced_value', 'paid_value', 'open_value'] as $value) {
                $sums[$row['currency']][$value] = ($sums[$row['currency']][$value] ?? 0.0) + (float) $row[$value];
            }
        }

        return $this->render('settle/history.html.twig', [
            'of' => $known,
            'which' => $which,
            'rows' => $rows,
            'sums' => $sums,
            'deposit' => null === $order ? null : Money::of($deposits->balance($order), $order->currency)->rounded(),
        ]);
    }
}
