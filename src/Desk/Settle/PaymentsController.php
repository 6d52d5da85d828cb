<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceRows;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\SupplierAccounts;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Settling\SendToBank;
use TallBarrel\Work\Settling\SettleInvoice;

/** What is settled and to be paid, by the day it should be, and what was paid last. */
#[Route('/settle/payments')]
#[AboutMoney]
final class PaymentsController extends AbstractController
{
    private const PAID_SHOWN = 12;

    public function __construct(
        private readonly Invoices $invoices,
        private readonly InvoiceRows $rows,
        private readonly CreditNotes $credits,
        private readonly SupplierAccounts $accounts,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'payments', methods: ['GET'])]
    public function show(): Response
    {
        return $this->render('settle/payments.html.twig', [
            'due' => $this->due(),
            'credits' => $this->credits->open(),
            'paid' => $this->rows->paid(self::PAID_SHOWN),
            'accounts' => $this->accounts->bySupplier(),
            'today' => $this->clock->now()->setTime(0, 0),
        ]);
    }

    #[Route('', name: 'payments_pay', methods: ['POST']), IsGranted('ROLE_RELEASE')]
    public function pay(Request $request, SettleInvoice $settle, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $invoices = self::ticked($fields, 'pay', 'seen');
        $day = $fields->day('day', $fields->text('day', 10));
        try {
            if (null === $day || [] === [...$invoices, ...self::ticked($fields, 'less', 'seen_credit')]) {
                throw new Refused(
                    $fields->errors()['day'] ?? (null === $day ? 'Say on which day.' : 'Tick what was paid.'),
                );
            }
            $paid = $settle->pay(
                $invoices,
                $day,
                $person,
                self::ticked($fields, 'less', 'seen_credit'),
                tell: '' !== $fields->text('tell', 1),
            );
            $this->addFlash('fine', sprintf(
                'Paid: %s.',
                implode(', ', array_map(static fn (Invoice $invoice): string => $invoice->number, $paid)),
            ));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('payments');
    }

    /** What is ticked, as the bank takes it. */
    #[Route('/bank', name: 'payments_bank', methods: ['POST']), IsGranted('ROLE_RELEASE')]
    public function bank(Request $request, SendToBank $send, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $day = $fields->day('day', $fields->text('day', 10));
        try {
            [$number, $file] = $send->send(
                self::ticked($fields, 'pay', 'seen'),
                $day ?? throw new Refused($fields->errors()['day'] ?? 'Say on which day.'),
                '' !== $fields->text('again', 1),
                $person,
                self::ticked($fields, 'less', 'seen_credit'),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('payments');
        }

        return new Response($file, headers: [
            'Content-Type' => 'application/xml; charset=UTF-8',
            'Content-Disposition' => sprintf('attachment; filename="%s.xml"', $number),
        ]);
    }

    /** For the bank or the bookkeeping: who gets how much, when, for which invoice. */
    #[Route('.csv', name: 'payments_file', methods: ['GET'])]
    public function takeOut(TableFile $files): Response
    {
        return new Response(
            $files->write([
                ['pay by', 'supplier', 'supplier code', 'invoice', 'day', 'currency', 'to pay', 'without discount'],
                ...array_map(static fn (PaymentDue $due): array => [
                    $due->day->format('Y-m-d'),
                    $due->invoice->supplier->name(),
                    $due->invoice->supplier->code,
                    $due->invoice->number,
                    $due->invoice->day->format('Y-m-d'),
                    $due->invoice->currency,
                    (string) $due->amount->amount,
                    (string) $due->payable->owed->amount,
                ], $this->due()),
            ]),
            headers: [
                'Content-Type' => 'text/csv; charset=UTF-8',
                'Content-Disposition' => 'attachment; filename="payments.csv"',
            ],
        );
    }

    /** @return list<array{int, int}> ids with the versions seen */
    private static function ticked(Fields $fields, string $name, string $seen): array
    {
        $versions = $fields->each($seen);

        return array_map(
            static fn (int $id): array => [$id, (int) ($versions[$id] ?? 0)],
            array_keys($fields->each($name)),
        );
    }

    /** @return list<PaymentDue> by the day to pay */
    private function due(): array
    {
        $percent = $this->business->get()->moneyPercent()->toFloat();
        $today = $this->clock->now()->setTime(0, 0);
        $due = array_map(
            static fn (array $one): PaymentDue => PaymentDue::of($one[0], $one[1], $today, $percent),
            $this->invoices->toPay(),
        );
        usort($due, static fn (PaymentDue $a, PaymentDue $b): int => [$a->day, $a->invoice->id]
            <=> [$b->day, $b->invoice->id]);

        return $due;
    }
}
