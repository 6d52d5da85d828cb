<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Doctrine\DBAL\Connection;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\WaitingCounts;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Store\Settle\InvoiceRows;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\SettleInvoice;

/** Invoices beside what was ordered and what came: what differs is decided, what is owed settled. */
#[Route('/settle')]
#[AboutMoney]
final class SettleController extends AbstractController
{
    public function __construct(
        private readonly Invoices $invoices,
        private readonly WaitingCounts $waiting,
        private readonly Shell $shell,
        private readonly InvoiceRows $rows,
        private readonly Connection $connection,
        private readonly LandedCharges $charges,
        private readonly Deposits $deposits,
        private readonly SettleInvoice $settle,
        private readonly CurrentBusiness $business,
        private readonly Audit $audit,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'settle', methods: ['GET'])]
    public function show(Request $request, #[CurrentUser] Person $person): Response
    {
        $list = $this->list('all' === $request->query->getString('received'));
        $first = $list->first();

        return $this->page($list, null === $first ? null : $this->invoices->find($first->id), $person);
    }

    #[Route('/{id}', name: 'settle_invoice', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function invoice(int $id, #[CurrentUser] Person $person): Response
    {
        $invoice = $this->invoices->find($id) ?? throw $this->createNotFoundException('There is no such invoice.');

        return $this->page($this->list(), $invoice, $person);
    }

    /** Decides about one line: what is done about goods that did not come, or about a price. */
    #[Route('/{id}/decide', name: 'settle_decide', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_DECIDE')]
    public function decide(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $verdict = QuantityVerdict::tryFrom($fields->text('quantity')) ?? PriceVerdict::tryFrom($fields->text('price'));

        return $this->step($id, function () use ($id, $fields, $verdict, $person): string {
            if (null === $verdict) {
                throw new Refused('Say what is to be done about the difference.');
            }
            $this->settle->decide($id, (int) $fields->text('version'), (int) $fields->text('line'), $verdict, $person);

            return PriceVerdict::Credit === $verdict || QuantityVerdict::Credit === $verdict
                ? 'Decided; a letter asking for a credit note is on its way.'
                : 'Decided.';
        });
    }

    #[Route('/{id}/release', name: 'settle_release', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_RELEASE')]
    public function release(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        return $this->step($id, function () use ($id, $request, $person): string {
            $invoice = $this->settle->release($id, (int) Fields::of($request)->text('version'), $person);

            return sprintf('%s is settled and waits to be paid.', $invoice->number);
        }, 'settle');
    }

    #[Route('/{id}/reopen', name: 'settle_reopen', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_RELEASE')]
    public function reopen(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        return $this->step($id, function () use ($id, $request, $person): string {
            $this->settle->reopen($id, (int) Fields::of($request)->text('version'), $person);

            return 'It is open again.';
        });
    }

    /** A part of what is owed was paid; the rest stays to be paid. */
    #[Route('/{id}/part', name: 'settle_part', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_RELEASE')]
    public function part(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $invoice = $this->invoices->find($id) ?? throw $this->createNotFoundException('There is no such invoice.');

        return $this->step($id, function () use ($invoice, $fields, $person): string {
            $amount = $fields->price('amount', $fields->text('amount', 20));
            $day = $fields->day('day', $fields->text('day', 10));
            if (null === $amount || null === $day) {
                throw new Refused(
                    $fields->errors()['amount'] ?? $fields->errors()['day'] ?? 'Say how much was paid, and when.',
                );
            }
            $money = Money::of($amount, $invoice->currency);
            $paid = $this->settle->payPart($invoice->id, (int) $fields->text('version'), $money, $day, $person);

            return InvoiceState::Paid === $paid->state() ? 'All of it is paid.' : sprintf(
                '%s %s are still to be paid.',
                $paid->currency,
                $paid->payable()->leftOn($day)->amount,
            );
        });
    }

    #[Route('/{id}/discard', name: 'settle_discard', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_INVOICE')]
    public function discard(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        return $this->step($id, function () use ($id, $request, $person): string {
            $this->settle->discard($id, (int) Fields::of($request)->text('version'), $person);

            return 'Given up; what came stands under “received, no invoice yet” again.';
        }, 'settle');
    }

    /** @param callable(): string $act what is said when it is done */
    private function step(int $id, callable $act, string $next = 'settle_invoice'): Response
    {
        try {
            $this->addFlash('fine', $act());
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
            $next = 'settle_invoice';
        }

        return $this->redirectToRoute($next, 'settle' === $next ? [] : ['id' => $id]);
    }

    private function list(bool $whole = false): SettleList
    {
        return SettleList::of($this->rows, $this->invoices, $this->charges, $this->deposits, $whole);
    }

    private function page(SettleList $list, ?Invoice $invoice, Person $person): Response
    {
        $terms = $invoice?->supplier->terms();
        $today = $this->clock->now()->setTime(0, 0);
        $until = null === $invoice ? null : $terms?->discountUntil($invoice->day);

        [$people, $receipts, $papers] = [[], [], []];
        if (null !== $invoice) {
            $trip = new OneTrip();
            Invoices::askReceivedBy($trip, $invoice);
            InvoicePapers::askOf($trip, $invoice);
            $answers = $trip->answers($this->connection);
            [$people, $receipts] = Invoices::receivedByIn($answers);
            $papers = InvoicePapers::in($answers);
        }
        $rows = $acts = [];
        foreach ($invoice?->lines() ?? [] as $line) {
            $rows[] = $row = MatchRow::of($line);
            $acts[$line->id] = $row->acts();
        }

        return $this->render('settle/settle.html.twig', [
            'list' => $list,
            'invoice' => $invoice,
            'rows' => $rows,
            'acts' => $acts,
            'terms' => $terms,
            'discountUntil' => null !== $until && $until >= $today ? $until : null,
            'ownTax' => $this->business->get()->ownTax(),
            'moneyPercent' => $this->business->get()->moneyPercent(),
            'receipts' => $receipts,
            'received' => in_array($person->id, $people, true),
            'history' => null === $invoice ? [] : $this->audit->of(EnterInvoice::subject($invoice)),
            'papers' => $papers,
            'toPay' => $this->waiting->at($this->shell->site())->toPay,
            'today' => $today,
        ]);
    }
}
