<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SupplierPage;

use Brick\Math\BigDecimal;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Ordering\AnsweredLine;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\CsrfGuard;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Work\Ordering\AnswerOrder;
use TallBarrel\Work\Ordering\NoteDespatch;
use TallBarrel\Work\Ordering\OrderPaper;

/**
 * The page a supplier answers one order on: no sign-in, only the link, which leads to that order and nothing else, is
 * throttled, and ends some time after the order has.
 */
#[Route('/order/{token}', requirements: ['token' => '[0-9A-Za-z]{1,80}'], defaults: [CsrfGuard::BY_LINK => true])]
final class SupplierOrderController extends AbstractController
{
    public function __construct(
        private readonly Orders $orders,
        private readonly Amendments $amendments,
        private readonly CurrentBusiness $business,
        private readonly ByLink $link,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'supplier_order', methods: ['GET'])]
    public function show(string $token, Request $request): Response
    {
        return $this->page($this->order($token, $request), Fields::none());
    }

    #[Route('', name: 'supplier_order_answer', methods: ['POST'])]
    public function answer(string $token, Request $request, AnswerOrder $answers): Response
    {
        $order = $this->order($token, $request);
        $fields = Fields::of($request);
        if (null === $order) {
            return $this->page(null, $fields);
        }
        $message = $fields->text('message', 500);
        $words = 'message' === $fields->text('do');
        if ($words && '' === $message) {
            $fields->refuse('message', 'Please write something first.');
        }
        $lines = $words ? [] : $this->lines($order, $fields);
        if (!$fields->isGood()) {
            return $this->page($order, $fields);
        }
        try {
            $answers->answer($order, (int) $fields->text('revision'), $lines, $message);
        } catch (Refused $refused) {
            $fields->refuse('answer', $refused->getMessage());

            return $this->page($this->order($token, $request), $fields);
        }

        return $this->redirectToRoute('supplier_order', ['token' => $token]);
    }

    /** What has left, and when it should be here. */
    #[Route('/left', name: 'supplier_order_left', methods: ['POST'])]
    public function left(string $token, Request $request, NoteDespatch $despatch): Response
    {
        $order = $this->order($token, $request);
        $fields = Fields::of($request);
        if (null === $order) {
            return $this->page(null, $fields);
        }
        $packs = [];
        foreach ($fields->each('left') as $id => $typed) {
            $packs[$id] = $fields->quantity('left-'.$id, $typed) ?? BigDecimal::zero();
        }
        $here = $fields->day('here', $fields->text('here', 10));
        if (null === $here) {
            $fields->refuse('here', 'When will it be here?');
        }
        try {
            if ($fields->isGood() && null !== $here) {
                $despatch->note(
                    $order,
                    $packs,
                    $here,
                    $fields->text('carrier', 60),
                    $fields->text('tracking', 60),
                    $fields->problems,
                );
            }
        } catch (Refused $refused) {
            $fields->refuse('answer', $refused->getMessage());
        }

        return $fields->isGood()
            ? $this->redirectToRoute('supplier_order', ['token' => $token])
            : $this->page($this->order($token, $request), $fields);
    }

    #[Route('/order.pdf', name: 'supplier_order_paper', methods: ['GET'])]
    public function paper(string $token, Request $request, OrderPaper $paper): Response
    {
        $order = $this->order($token, $request);

        if (null === $order) {
            return $this->page(null, Fields::none());
        }
        // What they got by mail, where that was kept.
        $sent = array_filter(
            $this->orders->documents($order),
            static fn (SentDocument $one): bool => $one->revision === $order->revision()
                && 'application/pdf' === $one->mediaType,
        );
        $last = end($sent);

        return new Response(
            false === $last ? $paper->pdf($order) : $last->content(),
            200,
            ['Content-Type' => 'application/pdf'],
        );
    }

    /** @return list<AnsweredLine> of what is outstanding; all as asked where the button says so */
    private function lines(PurchaseOrder $order, Fields $fields): array
    {
        $asAsked = 'all' === $fields->text('do');
        [$quantities, $prices, $days] = [$fields->each('quantity'), $fields->each('price'), $fields->each('day')];
        $lines = [];
        foreach (self::outstanding($order) as $line) {
            $id = $line->id;
            $came = $line->received()->plus($line->closedShort());
            $rest = $asAsked ? null : $fields->quantity('quantity-'.$id, $quantities[$id] ?? '');
            $price = $asAsked ? null : $fields->price('price-'.$id, $prices[$id] ?? '');
            $day = $asAsked ? null : $fields->day('day-'.$id, $days[$id] ?? '');
            if (null !== $day && $day < $this->clock->now()->setTime(0, 0)) {
                $fields->refuse('day-'.$id, sprintf('%s is over.', $day->format('j M Y')));
            }
            $lines[] = new AnsweredLine(
                $id,
                null === $rest ? $line->packs() : $rest->plus($came),
                $price ?? $line->price(),
                $day ?? $line->wantedOn(),
                $line->packs(),
                $line->price(),
                $line->wantedOn(),
            );
        }

        return $lines;
    }

    /** @return list<OrderLine> */
    private static function outstanding(PurchaseOrder $order): array
    {
        return array_values(
            array_filter($order->lines(), static fn (OrderLine $line): bool => $line->outstanding()->isPositive()),
        );
    }

    /** Null for a link that is foreign or has ended: the page says the same of both. */
    private function order(string $token, Request $request): ?PurchaseOrder
    {
        return $this->link->take($token, $request, function () use ($token): ?PurchaseOrder {
            $order = $this->orders->byToken($token);

            return null === $order || $this->clock->now() > $order->linkEnds() ? null : $order;
        });
    }

    private function page(?PurchaseOrder $order, Fields $fields): Response
    {
        $sent = null === $order ? [] : $this->amendments->sent($order);
        $since = null === $order ? null : $this->amendments->since($order);
        $last = end($sent);
        $before = count($sent) > 1 ? $sent[count($sent) - 2] : null;

        return $this->render(
            'supplier_page/order.html.twig',
            [
                'order' => $order,
                'outstanding' => null === $order ? [] : self::outstanding($order),
                'change' => false === $last || null === $before ? null : $last->since($before),
                'answers' => $since['answers'] ?? [],
                'despatches' => $since['despatches'] ?? [],
                'fields' => $fields,
                'business' => $this->business->get(),
            ],
            $this->link->answer(null !== $order, $fields),
        );
    }
}
