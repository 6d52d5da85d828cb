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
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Store\Order\OrderFilter;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Ordering\AcknowledgeOrder;
use TallBarrel\Work\Ordering\ApproveOrder;
use TallBarrel\Work\Ordering\EditOrder;
use TallBarrel\Work\Ordering\EndOrder;
use TallBarrel\Work\Ordering\LetterWords;
use TallBarrel\Work\Ordering\OrderLetter;
use TallBarrel\Work\Ordering\OrderPaper;
use TallBarrel\Work\Ordering\RememberOrder;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendOrder;
use TallBarrel\Work\Ordering\WithdrawLink;

#[Route('/orders')]
final class OrdersController extends AbstractController
{
    /** So many earlier orders are offered. */
    private const EARLIER = 12;

    public function __construct(private readonly Orders $orders, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('/{number}', name: 'order', methods: ['GET'])]
    public function show(string $number, Request $request, OrderPage $page): Response
    {
        return $this->render(
            'orders/order.html.twig',
            $page->of(
                $this->order($number),
                Fields::none(),
                $request->query->getBoolean('all'),
                $request->query->getBoolean('list'),
                $request->query->getBoolean('history'),
            ) + ['more' => $request->query->getBoolean('more')],
        );
    }

    /** What the supplier offers, once somebody opens the list. */
    #[Route('/{number}/list', name: 'order_their_list', methods: ['GET']), IsGranted('ROLE_BUY')]
    public function theirList(string $number, OrderPage $page): Response
    {
        return $this->render('orders/_their_list.html.twig', $page->list($this->order($number)));
    }

    /** What follows of a long order while somebody scrolls. */
    #[Route('/{number}/lines', name: 'order_lines', methods: ['GET'])]
    public function lines(string $number, Request $request, OrderPage $page): Response
    {
        return $this->render(
            'orders/_lines.html.twig',
            $page->lines($this->order($number), max(0, NumbersInAddresses::read($request, 'from'))),
        );
    }

    /** Saves the draft; with another button, goes a step further in the same stroke. */
    #[Route('/{number}', name: 'order_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(
        string $number,
        Request $request,
        EditOrder $edit,
        OrderPage $page,
        NextStep $step,
        AllOrNothing $whole,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $order = $this->order($number);
        $letter = $fields->attempt(
            'copies',
            static fn (): LetterWords => LetterWords::of($fields->text('letter', 5000), $fields->text('copies', 500)),
        );
        // Saved and taken further in one transaction: somebody whose answer is lost never has half of it.
        $words = $whole->take(function () use ($edit, $order, $fields, $person, $letter, $step): ?string {
            $saved = $edit->save($order, OrderForm::read($order, $fields), $person);
            if (!$fields->isGood()) {
                return null;
            }

            return implode(' ', [
                $step->take($this->order($order->number), $fields, $letter, $person),
                ...$saved->said(),
            ]);
        });
        if (!$fields->isGood()) {
            return $this->render(
                'orders/order.html.twig',
                $page->of($this->order($number), $fields) + ['more' => false],
                new Response(status: 422),
            );
        }
        $this->addFlash($step->isRefused() ? 'short' : 'fine', (string) $words);
        $number = $step->number() ?? $number;

        // Who has added a line adds another.
        $more = '' !== $fields->text('add') ? ['more' => 1] : [];

        return $this->redirectToRoute('order', ['number' => $number] + $more);
    }

    #[Route('/{number}/approve', name: 'order_approve', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function approve(
        string $number,
        Request $request,
        ApproveOrder $approve,
        #[CurrentUser] Person $person,
    ): Response {
        return $this->step($number, $request, function (SeenOrder $seen) use ($approve, $person): string {
            return $approve->approve($seen, $person)->number.' is approved.';
        });
    }

    #[Route('/{number}/back', name: 'order_back', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function back(
        string $number,
        Request $request,
        ApproveOrder $approve,
        #[CurrentUser] Person $person,
    ): Response {
        return $this->step($number, $request, function (SeenOrder $seen, Fields $fields) use (
            $approve,
            $person,
        ): string {
            return $approve->sendBack($seen, $person, $fields->text('reason'))->number.' is a draft again.';
        });
    }

    #[Route('/{number}/send', name: 'order_send', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function send(string $number, Request $request, SendOrder $send, #[CurrentUser] Person $person): Response
    {
        return $this->step(
            $number,
            $request,
            static fn (SeenOrder $seen): string => NextStep::onItsWay($send->send($seen, $person)),
        );
    }

    #[Route('/{number}/acknowledge', name: 'order_acknowledge', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function acknowledge(
        string $number,
        Request $request,
        AcknowledgeOrder $acknowledge,
        #[CurrentUser] Person $person,
    ): Response {
        return $this->step($number, $request, function (SeenOrder $seen, Fields $fields) use (
            $acknowledge,
            $person,
        ): string {
            $promised = $fields->day('promised', $fields->text('promised'));
            $byLine = [];
            foreach ($fields->each('promised_line') as $id => $typed) {
                $byLine[$id] = $fields->day('promised', $typed);
            }
            $acknowledge->acknowledge(
                $seen,
                $person,
                $fields->isGood() && null !== $promised
                    ? $promised
                    : throw new Refused($fields->errors()['promised'] ?? 'Which day did they promise?'),
                array_filter($byLine, static fn (?\DateTimeImmutable $day): bool => null !== $day),
            );

            return 'Their date is noted.';
        });
    }

    #[Route('/{number}/unconfirmed', name: 'order_unconfirmed', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function unconfirmed(
        string $number,
        Request $request,
        AcknowledgeOrder $acknowledge,
        #[CurrentUser] Person $person,
    ): Response {
        return $this->step($number, $request, static function (SeenOrder $seen) use ($acknowledge, $person): string {
            $acknowledge->takeBack($seen, $person);

            return 'It counts as not confirmed again.';
        });
    }

    #[Route('/{number}/link', name: 'order_link', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function withdrawLink(
        string $number,
        Request $request,
        WithdrawLink $withdraw,
        #[CurrentUser] Person $person,
    ): Response {
        return $this->step($number, $request, static function (SeenOrder $seen) use ($withdraw, $person): string {
            $withdraw->ofOrder($seen, $person);

            return 'The link they have leads nowhere any more; the next letter carries a new one.';
        });
    }

    #[Route('/{number}/cancel', name: 'order_cancel', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function cancel(string $number, Request $request, EndOrder $end, #[CurrentUser] Person $person): Response
    {
        return $this->step($number, $request, static function (SeenOrder $seen, Fields $fields) use (
            $end,
            $person,
        ): string {
            $order = $end->cancel($seen, $person, $fields->text('reason', 200), '1' === $fields->text('they_know'));

            return null === $order->sentAt()
                ? $order->number.' is thrown away; it can be opened again.'
                : $order->number.' is cancelled.';
        });
    }

    #[Route('/{number}/close', name: 'order_close', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function close(string $number, Request $request, EndOrder $end, #[CurrentUser] Person $person): Response
    {
        return $this->step($number, $request, static function (SeenOrder $seen, Fields $fields) use (
            $end,
            $person,
        ): string {
            $end->closeShort($seen, $person, $fields->text('agreed', 80), array_keys($fields->each('close')));

            return 'What was outstanding there is closed.';
        });
    }

    #[Route('/{number}/reopen', name: 'order_reopen', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function reopen(string $number, Request $request, EndOrder $end, #[CurrentUser] Person $person): Response
    {
        return $this->step($number, $request, static function (SeenOrder $seen) use ($end, $person): string {
            $order = $end->reopen($seen, $person);

            return sprintf('%s is open again: %s.', $order->number, $order->state()->words());
        });
    }

    /** What only we read of it. */
    #[Route('/{number}/remember', name: 'order_remember', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function remember(
        string $number,
        Request $request,
        RememberOrder $remember,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $day = $fields->day('remind_on', $fields->text('remind_on'));
        [$theirs, $reminder] = [$fields->text('their_reference', 40), $fields->text('reminder', 200)];
        $order = $this->order($number);
        try {
            if (!$fields->isGood()) {
                throw new Refused(implode(' ', $fields->errors()));
            }
            $remember->remember($order, $theirs, $reminder, $day, $person);
            $this->addFlash('fine', 'Kept.');
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    /** @param callable(SeenOrder, Fields): string $act answers with what it did */
    private function step(string $number, Request $request, callable $act): Response
    {
        $fields = Fields::of($request);
        try {
            $this->addFlash(
                'fine',
                $act(new SeenOrder($this->order($number)->id, (int) $fields->text('version')), $fields),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    /** The letter it would go out with, once somebody wants to change it. */
    #[Route('/{number}/letter', name: 'order_letter', methods: ['GET']), IsGranted('ROLE_BUY')]
    public function letter(string $number, OrderLetter $letter, #[CurrentUser] Person $person): Response
    {
        $order = $this->order($number);

        return $this->render('orders/_letter.html.twig', [
            'words' => null === $order->supplier->contact() ? '' : $letter->usual($order, $person),
        ]);
    }

    /** Orders to the same supplier whose lines could be bought once more, to be put into the page. */
    #[Route('/{number}/earlier', name: 'order_earlier', methods: ['GET']), IsGranted('ROLE_BUY')]
    public function earlier(string $number, OrderRows $rows): Response
    {
        $order = $this->order($number);
        $earlier = $rows->find(new OrderFilter(supplier: $order->supplier->code, sort: 'latest'), 0, self::EARLIER);

        return $this->render('orders/_earlier.html.twig', [
            'earlier' => array_filter($earlier, static fn (OrderRow $one): bool => $one->number !== $number),
        ]);
    }

    /** What the supplier would get now. */
    #[Route('/{number}/preview.pdf', name: 'order_preview', methods: ['GET'])]
    public function preview(string $number, OrderPaper $paper): Response
    {
        return self::document($paper->pdf($this->order($number)), $number.'-preview.pdf', 'application/pdf');
    }

    /** What it will truly cost, for ourselves. */
    #[Route('/{number}/costing.pdf', name: 'order_costing', methods: ['GET']), AboutMoney]
    public function costing(string $number, OrderPaper $paper): Response
    {
        return self::document($paper->costing($this->order($number)), $number.'-costing.pdf', 'application/pdf');
    }

    /** What the supplier got, byte for byte. */
    #[Route('/{number}/sent/{id}', name: 'order_sent', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function sent(string $number, int $id): Response
    {
        $document = $this->entities->find(SentDocument::class, $id);
        if (null === $document || $document->order->number !== $number) {
            throw $this->createNotFoundException('No such document was sent.');
        }

        return self::document($document->content(), $document->filename, $document->mediaType);
    }

    private static function document(string $bytes, string $name, string $mediaType): Response
    {
        $disposition = HeaderUtils::makeDisposition('application/pdf' === $mediaType ? 'inline' : 'attachment', $name);

        return new Response($bytes, 200, ['Content-Type' => $mediaType, 'Content-Disposition' => $disposition]);
    }

    private function order(string $number): PurchaseOrder
    {
        return $this->orders->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no order %s.', $number));
    }
}
