<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Reorder\Planner;
use TallBarrel\Desk\Shell\AfterResponse;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Order\OrderPaper;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Person\Person;

#[Route('/orders')]
final class OrdersController extends AbstractController
{
    public function __construct(private readonly Orders $orders, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('', name: 'orders', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $past = $request->query->getBoolean('past');
        $settled = [OrderState::Received, OrderState::Closed, OrderState::Cancelled];
        $orders = $past ? $this->orders->in($settled, 60)
            : $this->orders->in(array_values(array_filter(OrderState::cases(), static fn (OrderState $state): bool => !in_array($state, $settled, true))));
        $groups = [];
        foreach ($orders as $order) {
            $state = $order->state();
            $groups[match (true) {
                $past => 'Received, closed and cancelled',
                $state->isOpen() => 'On its way',
                OrderState::Draft === $state => 'Drafts',
                OrderState::AwaitingApproval === $state => 'Waiting for a yes',
                default => 'Ready to send',
            }][] = $order;
        }
        $sorted = [];
        foreach (['Waiting for a yes', 'Ready to send', 'Drafts', 'On its way', 'Received, closed and cancelled'] as $heading) {
            if (isset($groups[$heading])) {
                $sorted[$heading] = $groups[$heading];
            }
        }

        return $this->render('orders/orders.html.twig', ['groups' => $sorted, 'past' => $past]);
    }

    #[Route('/{number}', name: 'order', methods: ['GET'])]
    public function show(string $number, OrderPage $page): Response
    {
        return $this->render('orders/order.html.twig', $page->of($this->order($number), Fields::none()));
    }

    /** Saves the draft; with another button, goes a step further in the same stroke. */
    #[Route('/{number}', name: 'order_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $number, Request $request, OrderEditing $editing, OrderPage $page, Sending $sending, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $order = $this->order($number);
        $editing->save($order, $fields, $person);
        $order = $this->order($number);
        if (!$fields->isGood()) {
            return $this->render('orders/order.html.twig', $page->of($order, $fields), new Response(status: 422));
        }
        $step = $fields->text('do');
        if ('send' === $step || 'submit' === $step) {
            try {
                'send' === $step ? $sending->send($order->id, $order->version(), $person, '1' === $fields->text('over_draw')) : $sending->submit($order->id, $order->version(), $person, '1' === $fields->text('over_draw'));
                $this->addFlash('fine', 'send' === $step ? sprintf('%s is on its way to %s.', $number, $order->supplier->contact()?->email()) : sprintf('%s now waits for a yes.', $number));
            } catch (Refused $refused) {
                $this->addFlash('short', $refused->getMessage());
            }
        } else {
            $this->addFlash('fine', $number.' is saved.');
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    #[Route('/{number}/{step}', name: 'order_step', requirements: ['step' => 'approve|back|send|acknowledge|cancel|close'], methods: ['POST']), IsGranted('ROLE_BUY')]
    public function step(string $number, string $step, Request $request, Sending $sending, Planner $planner, AfterResponse $after, #[CurrentUser] Person $person): Response
    {
        $order = $this->order($number);
        $fields = Fields::of($request);
        $version = (int) $fields->text('version');
        try {
            match ($step) {
                'approve' => $sending->approve($order->id, $version, $person),
                'back' => $sending->sendBack($order->id, $version, $person, $fields->text('reason')),
                'send' => $sending->send($order->id, $version, $person),
                'acknowledge' => $sending->acknowledge($order->id, $version, $person, $fields->day('promised', $fields->text('promised')) ?? throw new Refused($fields->errors['promised'] ?? 'Which day did they promise?')),
                'cancel' => $sending->cancel($order->id, $version, $person),
                'close' => $sending->closeShort($order->id, $version, $person, $fields->text('agreed', 80)),
                default => throw new \LogicException('The route allows no other step.'),
            };
            if (!in_array($step, ['approve', 'back'], true)) {
                // What is to come has changed: its items are planned anew, once the page is out.
                $items = $order->itemIds();
                $after->do(static fn () => $planner->replan($items));
            }
            $this->addFlash('fine', match ($step) {
                'approve' => $number.' is approved.',
                'back' => $number.' is a draft again.',
                'send' => sprintf('%s is on its way to %s.', $number, $order->supplier->contact()?->email()),
                'acknowledge' => 'Their date is noted.',
                'cancel' => $number.' is cancelled.',
                default => 'What was outstanding is closed.',
            });
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    /** What the supplier would get now. */
    #[Route('/{number}/preview.pdf', name: 'order_preview', methods: ['GET'])]
    public function preview(string $number, OrderPaper $paper): Response
    {
        return self::pdf($paper->pdf($this->order($number)), $number.'-preview.pdf');
    }

    /** What the supplier got, byte for byte. */
    #[Route('/{number}/sent/{id}', name: 'order_sent', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function sent(string $number, int $id): Response
    {
        $document = $this->entities->find(SentDocument::class, $id);
        if (null === $document || $document->order->number !== $number) {
            throw $this->createNotFoundException('No such document was sent.');
        }

        return self::pdf($document->content(), $document->filename);
    }

    private static function pdf(string $bytes, string $name): Response
    {
        return new Response($bytes, 200, ['Content-Type' => 'application/pdf', 'Content-Disposition' => HeaderUtils::makeDisposition('inline', $name)]);
    }

    private function order(string $number): PurchaseOrder
    {
        return $this->orders->byNumber($number) ?? throw $this->createNotFoundException(sprintf('There is no order %s.', $number));
    }
}
