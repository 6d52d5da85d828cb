<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoicePayment;
use TallBarrel\Store\Settle\Invoices;

/** Finds what each payment of a bank statement was for; somebody looks at it before it is noted. */
final readonly class MatchStatement
{
    public function __construct(
        private EntityManagerInterface $entities,
        private StatementReader $reader,
        private Invoices $invoices,
        private CreditNotes $credits,
        private CurrentBusiness $business,
    ) {
    }

    /**
     * @return list<StatementMatch>
     *
     * @throws InvalidValue|Refused
     */
    public function match(string $name, string $bytes): array
    {
        $iban = $this->business->get()->iban() ?? throw new Refused(
            'Of which account? Type ours under Bank accounts first.',
        );
        $open = $this->invoices->in(InvoiceState::Settled, \PHP_INT_MAX);
        $found = [];
        foreach ($this->reader->read($name, $bytes, $iban->digits) as $entry) {
            $match = $this->one($entry, $open);
            $found[] = $match;
            // Nothing is paid twice by one statement.
            $open = array_values(array_filter(
                $open,
                static fn (Invoice $one): bool => !in_array($one, $match->invoices, true),
            ));
        }

        return $found;
    }

    /** @param list<Invoice> $open */
    private function one(StatementEntry $entry, array $open): StatementMatch
    {
        $noted = $this->entities->getRepository(InvoicePayment::class)->findOneBy([
            'reference' => $entry->bankReference, 'day' => $entry->day,
        ]);
        if ('' !== $entry->bankReference && null !== $noted) {
            return new StatementMatch(
                $entry,
                [],
                [],
                sprintf('noted already, for %s', $noted->invoice->number),
                true,
            );
        }
        [$invoices, $credits] = $this->byReference($entry, $open);
        $how = 'by our reference';
        if ([] === $invoices) {
            [$invoices, $credits, $how] = [$this->byNumber($entry, $open), [], 'by the number that stands there'];
        }
        if ([] === $invoices) {
            return new StatementMatch($entry, [], [], 'no invoice of that number waits to be paid');
        }
        $sum = Money::sum($entry->amount->currency, [
            ...array_map(
                static fn (Invoice $one): Money => $one->payable()->expectedOf($entry->amount, $entry->day),
                $invoices,
            ),
            ...array_map(
                static fn (CreditNote $one): Money => Money::zero($one->currency)->minus($one->due()),
                $credits,
            ),
        ]);
        if ($sum->amount->isEqualTo($entry->amount->amount)) {
            return new StatementMatch($entry, $invoices, $credits, $how);
        }

        return 1 === count($invoices) && [] === $credits && $entry->amount->isLessThan($sum)
            ? new StatementMatch($entry, $invoices, [], $how.', a part', isPart: true)
            : new StatementMatch($entry, [], [], sprintf(
                '%s would be %s %s',
                implode(', ', array_map(static fn (Invoice $one): string => $one->number, $invoices)),
                $sum->currency->code,
                $sum->amount,
            ));
    }

    /**
     * A payment that went out in one of our files: its reference names the file and one of the invoices.
     *
     * @param list<Invoice> $open
     *
     * @return array{list<Invoice>, list<CreditNote>}
     */
    private function byReference(StatementEntry $entry, array $open): array
    {
        if (1 !== preg_match('/^(.+)-(\d+)$/', $entry->ours, $of)) {
            return [[], []];
        }
        $first = array_values(array_filter(
            $open,
            static fn (Invoice $one): bool => $one->id === (int) $of[2] && $one->bankFile() === $of[1],
        ))[0] ?? null;
        if (null === $first || $first->currency !== $entry->amount->currency->code) {
            return [[], []];
        }
        $alike = static fn (Invoice|CreditNote $one): bool => $one->bankFile() === $of[1]
            && CreditsTakenOff::key($one) === CreditsTakenOff::key($first);
        $credits = array_values(array_filter($this->credits->open(), $alike));

        return [[] === $credits ? [$first] : array_values(array_filter($open, $alike)), $credits];
    }

    /**
     * @param list<Invoice> $open
     *
     * @return list<Invoice>
     */
    private function byNumber(StatementEntry $entry, array $open): array
    {
        return array_values(array_filter(
            $open,
            static fn (Invoice $one): bool => $one->currency === $entry->amount->currency->code
                && 1 === preg_match(
                    '/(?<![\p{L}\p{N}])'.preg_quote($one->number, '/').'(?![\p{L}\p{N}])/iu',
                    $entry->words,
                ),
        ));
    }
}
