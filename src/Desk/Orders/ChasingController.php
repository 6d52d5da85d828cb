<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\ChaseOrder;

/** Sent orders that planning has an opinion on: count on a late one or not, ask for one to come sooner. */
#[Route('/orders/{number}'), IsGranted('ROLE_BUY')]
final class ChasingController extends AbstractController
{
    public function __construct(
        private readonly Orders $orders,
        private readonly EntityManagerInterface $entities,
        private readonly ChaseOrder $chase,
    ) {
    }

    #[Route('/count-on', name: 'order_count_on', methods: ['POST'])]
    public function countOn(string $number, Request $request, #[CurrentUser] Person $person): Response
    {
        $counted = '1' === Fields::of($request)->text('count');
        try {
            $this->chase->countOn($this->order($number), $counted, $person);
            $this->addFlash(
                'fine',
                sprintf(
                    '%s is %s on; its items are planned again.',
                    $number,
                    $counted ? 'counted' : 'no longer counted',
                ),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('reorder');
    }

    #[Route('/bring-forward', name: 'order_forward', methods: ['POST'])]
    public function bringForward(string $number, Request $request, #[CurrentUser] Person $person): Response
    {
        $order = $this->order($number);
        $fields = Fields::of($request);
        $by = $fields->day('by', $fields->text('by'));
        $item = $this->entities->getRepository(Item::class)->findOneBy(['code' => $fields->text('item')]);
        try {
            $by ??
                throw new Refused(
                    $fields->errors()['by'] ?? sprintf('There is nothing to bring forward on %s.', $number),
                );
            $this->chase->bringForward($order, $item, $by, $person);
            $this->addFlash(
                'fine',
                sprintf(
                    '%s has been asked to bring %s forward to %s.',
                    $order->supplier->name(),
                    $number,
                    $by->format('D j M'),
                ),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('reorder');
    }

    private function order(string $number): PurchaseOrder
    {
        return $this->orders->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no order %s.', $number));
    }
}
