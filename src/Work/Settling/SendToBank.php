<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\SupplierAccounts;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Makes a file for the bank of invoices that are to be paid; they are paid when somebody notes so. */
final readonly class SendToBank
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Invoices $invoices,
        private SupplierAccounts $accounts,
        private CreditsTakenOff $takenOff,
        private CurrentBusiness $business,
        private BankFile $file,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param list<array{int, int}> $chosen invoices with their version as it was seen
     * @param bool                  $again  whether what is in a file already goes once more
     * @param list<array{int, int}> $credits credit notes that lessen what their suppliers get, with their version
     *
     * @return array{string, string} number of the file, and its content
     *
     * @throws Refused if one of them cannot be paid so; nothing is noted then
     */
    public function send(
        array $chosen,
        \DateTimeImmutable $on,
        bool $again,
        Person $by,
        array $credits = [],
    ): array {
        return $this->whole->take(function () use ($chosen, $on, $again, $by, $credits): array {
            $today = $this->clock->now()->setTime(0, 0);
            if ($on < $today) {
                throw new Refused(sprintf('%s is over; a bank pays from today on.', $on->format('j M Y')));
            }
            if (null === $this->business->get()->iban()) {
                throw new Refused('From which account? Type ours under Bank accounts first.');
            }
            $number = NumberSeries::take(
                $this->entities->getConnection(),
                NumberSeries::BANK_FILES,
                $this->clock->now(),
            );
            $invoices = [];
            foreach ($chosen as [$id, $version]) {
                $stands = $this->invoices->lock($id);
                $invoice = $this->invoices->find($id) ?? throw new Refused('That invoice is gone.');
                if ($stands !== $version || $invoice->version() !== $version) {
                    throw new Refused(
                        sprintf('%s was changed by somebody else meanwhile; look at it once more.', $invoice->number),
                    );
                }
                $this->goes($invoice, $number, $again);
                $invoices[] = $invoice;
                $this->audit->note($by, EnterInvoice::subject($invoice), sprintf(
                    'In %s for the bank, to be paid on %s',
                    $number,
                    $on->format('j M Y'),
                ));
            }
            if ([] === $invoices) {
                throw new Refused('Tick what goes to the bank.');
            }
            $less = $this->takenOff->from($invoices, $credits, $on);
            foreach ($less as $credit) {
                $this->goes($credit, $number, $again);
            }
            $payments = $this->payments($invoices, $less, $number, $on);
            if ([] === $payments) {
                throw new Refused('What is taken off comes to all of it; nothing goes to the bank.');
            }
            $currencies = array_unique(array_map(
                static fn (BankPayment $payment): string => $payment->amount->currency->code,
                $payments,
            ));
            if (count($currencies) > 1) {
                throw new Refused(sprintf('One file has one currency; these are %s.', implode(' and ', $currencies)));
            }

            return [$number, $this->file->write($number, $on, $this->clock->now(), $payments)];
        });
    }

    private function goes(Invoice|CreditNote $one, string $number, bool $again): void
    {
        $before = $one->bankFile();
        if ('' !== $before && !$again) {
            throw new Refused(
                sprintf('%s is in %s already; tick “once more” if that was not sent.', $one->number, $before),
            );
        }
        $one->goesToBank($number);
    }

    /**
     * One for each invoice; where something is taken off, one for all of that supplier.
     *
     * @param list<Invoice>    $invoices
     * @param list<CreditNote> $credits
     *
     * @return list<BankPayment>
     */
    private function payments(array $invoices, array $credits, string $number, \DateTimeImmutable $on): array
    {
        $less = [];
        foreach ($credits as $credit) {
            $less[CreditsTakenOff::key($credit)][] = $credit;
        }
        $payments = $together = [];
        foreach ($invoices as $invoice) {
            $key = CreditsTakenOff::key($invoice);
            if (isset($less[$key])) {
                $together[$key][] = $invoice;
            } else {
                $payments[] = $this->payment([$invoice], [], $number, $on);
            }
        }
        foreach ($together as $key => $some) {
            $payments[] = $this->payment($some, $less[$key], $number, $on);
        }

        return array_values(array_filter(
            $payments,
            static fn (BankPayment $payment): bool => $payment->amount->amount->isPositive(),
        ));
    }

    /**
     * @param non-empty-list<Invoice> $invoices of one payee in one currency
     * @param list<CreditNote>        $credits
     */
    private function payment(array $invoices, array $credits, string $number, \DateTimeImmutable $on): BankPayment
    {
        $first = $invoices[0];
        $payee = $first->supplier->paidThrough() ?? $first->supplier;
        $account = $this->accounts->inForce($payee) ?? throw new Refused(
            sprintf('%s has no account that two people said yes to; see Bank accounts.', $payee->name()),
        );
        $amount = Money::zero($first->currency);
        foreach ($invoices as $invoice) {
            $amount = $amount->plus($invoice->payable()->toPayOn($on)->rounded());
        }
        foreach ($credits as $credit) {
            $amount = $amount->minus($credit->due()->rounded());
        }
        $named = static fn (Invoice|CreditNote $one): string => $one->number;

        return new BankPayment(
            $account,
            $amount,
            $number.'-'.$first->id,
            [] === $credits
                ? sprintf('Invoice %s of %s', $first->number, $first->day->format('Y-m-d'))
                // Unstructured remittance information has 140 characters in ISO 20022.
                : mb_substr(sprintf(
                    'Invoices %s less credit notes %s',
                    implode(', ', array_map($named, $invoices)),
                    implode(', ', array_map($named, $credits)),
                ), 0, 140),
        );
    }
}
