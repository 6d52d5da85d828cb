<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\Approval;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendTogether;
use TallBarrel\Work\Ordering\SentTogether;

/** Drafts and what was approved, looked through together and sent in one stroke. */
#[Route('/orders/drafts', priority: 1)]
final class DraftsController extends AbstractController
{
    public function __construct(private readonly Orders $orders)
    {
    }

    #[Route('', name: 'drafts', methods: ['GET'])]
    public function show(Approval $approval, #[CurrentUser] Person $person): Response
    {
        $orders = $this->standing();
        $objections = $approval->objections($orders, $person);

        return $this->render('orders/drafts.html.twig', [
            'drafts' => array_map(
                static fn (PurchaseOrder $order): DraftToSend => DraftToSend::of(
                    $order,
                    OrderState::Approved === $order->state() || !isset($objections[$order->id]),
                ),
                $orders,
            ),
        ]);
    }

    #[Route('', name: 'drafts_send', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function send(Request $request, SendTogether $together, #[CurrentUser] Person $person): Response
    {
        $seen = Fields::of($request)->each('seen');
        $ticked = Fields::of($request)->each('chosen');
        $orders = [];
        foreach ($this->standing() as $order) {
            if (isset($ticked[$order->id])) {
                $orders[] = [$order, new SeenOrder($order->id, (int) ($seen[$order->id] ?? 0))];
            }
        }
        if ([] === $orders) {
            $this->addFlash('watch', 'No order is ticked; tick those that may go.');

            return $this->redirectToRoute('drafts');
        }
        $done = $together->send($orders, $person);
        $this->tell($done);

        return [] === $done->held ? $this->redirectToRoute('orders') : $this->redirectToRoute('drafts');
    }

    /** @return list<PurchaseOrder> in the order they were begun */
    private function standing(): array
    {
        $orders = $this->orders->in([OrderState::Draft, OrderState::Approved]);
        usort($orders, static fn (PurchaseOrder $a, PurchaseOrder $b): int => $a->id <=> $b->id);

        return $orders;
    }

    private function tell(SentTogether $done): void
    {
        if ([] !== $done->sent) {
            $this->addFlash('fine', sprintf('On the way: %s.', implode(', ', $done->sent)));
        }
        if ([] !== $done->waiting) {
            $this->addFlash('watch', sprintf('Awaiting approval: %s.', implode(', ', $done->waiting)));
        }
        foreach ($done->held as $number => $reason) {
            $this->addFlash('short', str_contains($reason, $number) ? $reason : $number.': '.$reason);
        }
    }
}
