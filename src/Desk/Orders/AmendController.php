<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Brick\Math\BigDecimal;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AdjustmentRows;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderAmendment;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Ordering\AddedLine;
use TallBarrel\Work\Ordering\AmendmentChanges;
use TallBarrel\Work\Ordering\AmendOrder;
use TallBarrel\Work\Ordering\AnswerOrder;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendRevision;

/** Changes an order that is out: a revision of ours, or a yes or no to what the supplier answered. */
#[Route('/orders/{number}'), IsGranted('ROLE_BUY')]
final class AmendController extends AbstractController
{
    public function __construct(
        private readonly Orders $orders,
        private readonly Amendments $amendments,
        private readonly Sites $sites,
        private readonly CurrentBusiness $business,
    ) {
    }

    #[Route('/revision', name: 'order_amend', methods: ['GET'])]
    public function show(string $number): Response
    {
        $order = $this->order($number);
        $amendment = $this->amendments->of($order);

        return null === $amendment
            ? $this->redirectToRoute('order', ['number' => $number])
            : $this->page($order, $amendment, Fields::none());
    }

    #[Route('/revision/begin', name: 'order_amend_begin', methods: ['POST'])]
    public function begin(string $number, AmendOrder $amend, #[CurrentUser] Person $person): Response
    {
        try {
            $amend->begin($this->order($number), $person);
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('order', ['number' => $number]);
        }

        return $this->redirectToRoute('order_amend', ['number' => $number]);
    }

    /** Saves it; with another button, sends it in the same stroke, or asks somebody to. */
    #[Route('/revision', name: 'order_amend_save', methods: ['POST'])]
    public function save(
        string $number,
        Request $request,
        AmendOrder $amend,
        SendRevision $revision,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $order = $this->order($number);
        $amendment = $this->amendments->of($order);
        if (null === $amendment) {
            $this->addFlash('short', 'That revision is gone: somebody sent it or threw it away.');

            return $this->redirectToRoute('order', ['number' => $number]);
        }
        try {
            $amend->save($order, $this->changes($amendment, $fields), $person, $fields->problems);
        } catch (Refused $refused) {
            $fields->refuse('amendment', $refused->getMessage());
        }
        $order = $this->order($number);
        $amendment = $this->amendments->of($order) ?? $amendment;
        if (!$fields->isGood()) {
            return $this->page($order, $amendment, $fields);
        }
        try {
            $do = $fields->text('do');
            if ('send' === $do) {
                $order = $revision->send(SeenOrder::now($order), $amendment->version(), $person);
                $this->addFlash(
                    'fine',
                    sprintf(
                        'Revision %d is on its way to %s.',
                        $order->revision(),
                        $order->supplier->contact()?->email() ?? '',
                    ),
                );

                return $this->redirectToRoute('order', ['number' => $number]);
            }
            if ('ask' === $do) {
                $revision->askForYes(SeenOrder::now($order), $amendment->version(), $person);
                $this->addFlash('fine', 'It waits for somebody with a higher limit.');
            }
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order_amend', ['number' => $number] + ('' === $fields->text('add') ? [] : [
            'more' => 1,
        ]));
    }

    #[Route('/revision/drop', name: 'order_amend_drop', methods: ['POST'])]
    public function drop(string $number, AmendOrder $amend, #[CurrentUser] Person $person): Response
    {
        try {
            $amend->drop($this->order($number), $person);
            $this->addFlash('fine', 'The revision is thrown away; the order stands as it was sent.');
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    /** Our yes or no to what they answered. */
    #[Route('/answers/{id}', name: 'order_answer_decide', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function decide(
        string $number,
        int $id,
        Request $request,
        AnswerOrder $answers,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $seen = new SeenOrder($this->order($number)->id, (int) $fields->text('version'));
        $words = $fields->text('words', 300);
        try {
            if ('yes' === $fields->text('do')) {
                $answers->accept($seen, $id, $person, $words);
                $this->addFlash('fine', 'They are told that it is agreed; planning counts on their days.');
            } else {
                $answers->decline($seen, $id, $person, $words);
                $this->addFlash('fine', 'They are told that it is not agreed; the order stands as it was sent.');
            }
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('order', ['number' => $number]);
    }

    private function changes(OrderAmendment $amendment, Fields $fields): AmendmentChanges
    {
        [$quantities, $prices, $days] = [$fields->each('quantity'), $fields->each('price'), $fields->each('day')];
        $wishes = [];
        foreach ($amendment->wishes() as $place => $wish) {
            $packs = $fields->quantity('quantity-'.$place, $quantities[$place] ?? '');
            $price = $fields->price('price-'.$place, $prices[$place] ?? '');
            $wishes[$place] = new LineWish(
                $wish->line,
                $wish->offer,
                $wish->text,
                $packs ?? ('' === ($quantities[$place] ?? '0') ? BigDecimal::zero() : $wish->packs),
                $price ?? $wish->price,
                $fields->day('day-'.$place, $days[$place] ?? ''),
                $wish->site,
            );
        }
        $words = $fields->text('add');

        return new AmendmentChanges(
            (int) $fields->text('version'),
            $wishes,
            '' === $words
                ? null
                : new AddedLine(
                    $words,
                    $fields->quantity('add', $fields->text('add_quantity')),
                    $fields->price('add', $fields->text('add_price')),
                ),
            $this->sites->find((int) $fields->text('add_site')) ?? $this->sites->all()[0],
            $fields->day('wanted', $fields->text('wanted')) ?? $amendment->wantedOn(),
            $fields->text('note', 500),
            AdjustmentRows::read($fields, $amendment->order->tax()) ?? $amendment->adjustments(),
        );
    }

    private function page(PurchaseOrder $order, OrderAmendment $amendment, Fields $fields): Response
    {
        $person = $this->getUser();
        $lines = [];
        foreach ($order->lines() as $line) {
            $lines[$line->id] = $line;
        }
        $now = $order->rate()->toHome($amendment->totals()->net)->rounded();

        return $this->render(
            'orders/amend.html.twig',
            [
                'order' => $order,
                'amendment' => $amendment,
                'rows' => array_map(
                    static fn (LineWish $wish): array => [
                        'wish' => $wish,
                        'line' => null === $wish->line ? null : ($lines[$wish->line] ?? null),
                    ],
                    $amendment->wishes(),
                ),
                'differing' => array_filter(
                    $order->lines(),
                    static fn (OrderLine $line): bool => $amendment->differsIn($line),
                ),
                'homeNow' => $now,
                'withinLimit' => $person instanceof Person
                    && ($person->maySpend($now) || !$now->isGreaterThan($order->homeTotal())),
                'mayNeedAnother' => $this->business->get()->yesRules()->everAsksSomebodyElse(),
                'sites' => $this->sites->all(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function order(string $number): PurchaseOrder
    {
        return $this->orders->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no order %s.', $number));
    }
}
