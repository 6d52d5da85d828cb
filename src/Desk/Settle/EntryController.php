<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\InvoicePaper;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\Uninvoiced;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\AskedInvoice;
use TallBarrel\Work\Settling\AskedLine;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\ReadPaper;

/** Types an invoice: what came and is on none stands there already, or what the file says that it came as. */
#[Route('/settle/new/{code}')]
#[IsGranted('ROLE_INVOICE')]
#[AboutMoney]
final class EntryController extends AbstractController
{
    private const CHARGES = 2;

    public function __construct(
        private readonly Invoices $invoices,
        private readonly InvoicePapers $papers,
        private readonly Deposits $depositsOf,
        private readonly ReadPaper $read,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    #[Route('', name: 'invoice_new', methods: ['GET'])]
    public function show(string $code, Request $request): Response
    {
        $supplier = $this->supplier($code);
        $paper = $this->papers->waiting($supplier, NumbersInAddresses::read($request, 'paper'));

        return $this->page(
            $supplier,
            $request->query->getString('receipt'),
            Fields::none(),
            $paper,
            $this->order($supplier, $request->query->getString('deposit')),
            $request->query->getString('month'),
        );
    }

    #[Route('', name: 'invoice_enter', methods: ['POST'])]
    public function enter(string $code, Request $request, EnterInvoice $enter, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->supplier($code);
        $fields = Fields::of($request);
        $lines = $this->lines($supplier, $fields);
        $total = $fields->price('total', $fields->text('total', 20));
        $day = $fields->day('day', $fields->text('day', 10));
        $number = $fields->text('number', 40);
        $key = $fields->text('key', 50);
        $paper = $this->papers->waiting($supplier, (int) $fields->text('paper', 12));
        $invoice = '' === $key || !$fields->isGood() ? null : $enter->enter(
            new AskedInvoice($supplier, $number, $day, $lines, $total, $key),
            $person,
            $fields->problems,
        );
        if (null === $invoice) {
            $order = $this->order($supplier, $fields->text('order', 20));

            return $this->page(
                $supplier,
                $fields->text('receipt', 20),
                $fields,
                $paper,
                $order,
                $fields->text('month', 7),
            );
        }
        if (null !== $paper) {
            $this->read->entered($paper, $invoice);
        }
        $this->addFlash('fine', sprintf('%s is entered and stands beside what came.', $invoice->number));

        return $this->redirectToRoute('settle_invoice', ['id' => $invoice->id]);
    }

    private function supplier(string $code): Supplier
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code])
            ?? throw $this->createNotFoundException('There is no such supplier.');
    }

    /** @return list<AskedLine> */
    private function lines(Supplier $supplier, Fields $fields): array
    {
        $asked = [];
        [$prices, $rates] = [$fields->each('price'), $fields->each('tax')];
        foreach ($fields->each('packs') as $id => $packs) {
            $line = $this->entities->find(OrderLine::class, $id);
            if (null !== $line) {
                $asked[] = new AskedLine(
                    'packs-'.$id,
                    $line,
                    $line->description,
                    $fields->quantity('packs-'.$id, $packs) ?? BigDecimal::zero(),
                    $fields->price('price-'.$id, $prices[$id] ?? '') ?? $line->price(),
                    $fields->price('tax-'.$id, $rates[$id] ?? '') ?? $line->tax()->percent,
                );
            }
        }
        $amounts = $fields->each('charge');
        $taxes = $fields->each('charge_tax');
        foreach ($fields->each('charge_words') as $i => $words) {
            $amount = $fields->signed('charge-'.$i, $amounts[$i] ?? '');
            if (null === $amount) {
                continue;
            }
            $asked[] = new AskedLine(
                'charge-'.$i,
                null,
                '' === $words ? 'Freight' : mb_substr($words, 0, 200),
                BigDecimal::one(),
                $amount,
                $fields->price('charge_tax-'.$i, $taxes[$i] ?? '') ?? $supplier->tax()->percent,
            );
        }

        return [...$asked, ...$this->deposits($fields)];
    }

    /** @return list<AskedLine> asked for before goods come, and taken off when they are invoiced */
    private function deposits(Fields $fields): array
    {
        $asked = [];
        $taxes = $fields->each('deposit_tax');
        foreach (['deposit' => 'Deposit of %s', 'deposit_off' => 'Deposit of %s, taken off'] as $name => $words) {
            foreach ($fields->each($name) as $id => $amount) {
                $place = $name.'-'.$id;
                $order = $this->entities->find(PurchaseOrder::class, $id);
                $read = null === $order ? null : $fields->price($place, $amount);
                if (null === $order || null === $read || $read->isZero()) {
                    continue;
                }
                $asked[] = new AskedLine(
                    $place,
                    null,
                    sprintf($words, $order->number),
                    BigDecimal::one(),
                    'deposit' === $name ? $read : $read->negated(),
                    $fields->price('deposit_tax-'.$id, $taxes[$id] ?? '') ?? $order->tax()->percent,
                    $order,
                );
            }
        }

        return $asked;
    }

    private function order(Supplier $supplier, string $number): ?PurchaseOrder
    {
        return '' === $number ? null : $this->entities->getRepository(PurchaseOrder::class)->findOneBy(
            ['number' => $number, 'supplier' => $supplier],
        ) ?? throw $this->createNotFoundException(sprintf('%s is not ordered from %s.', $number, $supplier->name()));
    }

    /**
     * @param PurchaseOrder|null $deposit whose deposit the invoice asks for, before anything came
     * @param string             $month   as 2026-10, where one invoice is for all that came in it; empty for none
     */
    private function page(
        Supplier $supplier,
        string $receipt,
        Fields $fields,
        ?InvoicePaper $paper,
        ?PurchaseOrder $deposit,
        string $month,
    ): Response {
        $draft = null === $paper ? null : $this->read->draft($paper);
        $month = 1 === preg_match('/^\d{4}-(0[1-9]|1[0-2])$/D', $month) ? $month : '';
        $waiting = null === $deposit ? $this->invoices->uninvoiced($supplier) : [];
        $chosen = array_values(array_filter(
            $waiting,
            static fn (Uninvoiced $one): bool => '' !== $receipt
                ? $one->receipt === $receipt
                : '' === $month || $one->day->format('Y-m') === $month,
        ));
        $rows = [];
        foreach ($chosen as $one) {
            foreach ($one->packs as $id => $packs) {
                $line = $rows[$id]['line'] ?? $this->entities->find(OrderLine::class, $id);
                if (null !== $line) {
                    $rows[$id] = [
                        'line' => $line,
                        'packs' => BigDecimal::of($rows[$id]['packs'] ?? 0)->plus($packs),
                        'receipts' => [...$rows[$id]['receipts'] ?? [], $one->receipt],
                    ];
                }
            }
        }

        foreach (array_keys($draft->lines ?? []) as $id) {
            $line = $this->entities->find(OrderLine::class, $id);
            if (null !== $line && !isset($rows[$id])) {
                $rows[$id] = ['line' => $line, 'packs' => BigDecimal::zero(), 'receipts' => []];
            }
        }

        if (null !== $draft) {
            // What the file does not ask for is not looked through to find what it does.
            $rows = array_intersect_key($rows, $draft->lines);
        }

        $orders = [];
        foreach ($rows as $row) {
            $orders[$row['line']->order->number] = $row['line']->order;
        }

        return $this->render('settle/entry.html.twig', [
            'supplier' => $supplier,
            'receipt' => $receipt,
            'month' => $month,
            'months' => array_values(array_unique(
                array_map(static fn (Uninvoiced $one): string => $one->day->format('Y-m'), $waiting),
            )),
            'others' => count($waiting) - count($chosen),
            'rows' => $rows,
            'charges' => range(0, max(self::CHARGES, count($draft->charges ?? [])) - 1),
            'paper' => $paper,
            'draft' => $draft,
            'within' => null === $paper ? [] : $this->papers->within($paper),
            'orders' => array_values($orders),
            'deposit' => $deposit,
            'depositsOpen' => $this->depositsOf->open(array_values($orders)),
            'fields' => $fields,
            'key' => $fields->text('key', 50, 'invoice-'.bin2hex(random_bytes(8))),
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
