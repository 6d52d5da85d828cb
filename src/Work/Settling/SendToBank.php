<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Person\Person;
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
     *
     * @return array{string, string} number of the file, and its content
     *
     * @throws Refused if one of them cannot be paid so; nothing is noted then
     */
    public function send(array $chosen, \DateTimeImmutable $on, bool $again, Person $by): array
    {
        return $this->whole->take(function () use ($chosen, $on, $again, $by): array {
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
            $payments = [];
            foreach ($chosen as [$id, $version]) {
                $stands = $this->invoices->lock($id);
                $invoice = $this->invoices->find($id) ?? throw new Refused('That invoice is gone.');
                if ($stands !== $version || $invoice->version() !== $version) {
                    throw new Refused(
                        sprintf('%s was changed by somebody else meanwhile; look at it once more.', $invoice->number),
                    );
                }
                $payments[] = $this->payment($invoice, $number, $on, $again);
                $this->audit->note($by, EnterInvoice::subject($invoice), sprintf(
                    'In %s for the bank, to be paid on %s',
                    $number,
                    $on->format('j M Y'),
                ));
            }
            if ([] === $payments) {
                throw new Refused('Tick what goes to the bank.');
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

    private function payment(Invoice $invoice, string $number, \DateTimeImmutable $on, bool $again): BankPayment
    {
        $before = $invoice->bankFile();
        if ('' !== $before && !$again) {
            throw new Refused(
                sprintf('%s is in %s already; tick “once more” if that was not sent.', $invoice->number, $before),
            );
        }
        $payee = $invoice->supplier->paidThrough() ?? $invoice->supplier;
        $account = $this->accounts->inForce($payee) ?? throw new Refused(
            sprintf('%s has no account that two people said yes to; see Bank accounts.', $payee->name()),
        );
        $invoice->goesToBank($number);

        return new BankPayment(
            $account,
            $invoice->toPayOn($on)->rounded(),
            $number.'-'.$invoice->id,
            trim(sprintf('Invoice %s of %s', $invoice->number, $invoice->day->format('Y-m-d'))),
        );
    }
}
