<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\Invoice;

/** Credit notes that lessen what a supplier is paid: never to less than nothing. */
final readonly class CreditsTakenOff
{
    public function __construct(private CreditNotes $credits)
    {
    }

    /**
     * @param list<Invoice>           $invoices paid together
     * @param list<array{int, int}>   $chosen   credit notes with the versions seen
     * @param \DateTimeImmutable|null $on       the day on which they are to be paid; null where they just were
     *
     * @return list<CreditNote> locked
     *
     * @throws Refused if one was changed, or more is taken off than is paid to whom it is of
     */
    public function from(array $invoices, array $chosen, ?\DateTimeImmutable $on = null): array
    {
        $found = $whom = [];
        /** @var array<string, Money> $left */
        $left = [];
        foreach ($invoices as $invoice) {
            $key = self::key($invoice);
            $paid = null === $on ? $invoice->paidLast() : $invoice->payable()->toPayOn($on);
            $left[$key] = ($left[$key] ?? Money::zero($invoice->currency))->plus($paid);
        }
        foreach ($chosen as [$id, $version]) {
            $credit = $this->credits->locked($id, $version) ?? throw new Refused(
                'A credit note was changed by somebody else meanwhile. Look at it once more, then try again.',
            );
            $key = self::key($credit);
            $whom[$key] = $credit->supplier->name();
            $left[$key] = ($left[$key] ?? Money::zero($credit->currency))->minus($credit->due());
            $found[] = $credit;
        }
        foreach ($left as $key => $rest) {
            if ($rest->amount->isNegative()) {
                throw new Refused(sprintf(
                    'More is taken off than %s is paid: %s %s too much. Tick more of their invoices.',
                    $whom[$key] ?? 'somebody',
                    $rest->currency->code,
                    $rest->amount->abs(),
                ));
            }
        }

        return $found;
    }

    /** Who is paid, in what. */
    public static function key(Invoice|CreditNote $one): string
    {
        return ($one->supplier->paidThrough() ?? $one->supplier)->id.$one->currency;
    }
}
