<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Store\Business\Business;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNoteLine;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\SupplierAccount;
use TallBarrel\Store\Settle\Uninvoiced;
use TallBarrel\Store\Supplier\Supplier;

/** What Larkmoor's suppliers asked for: most of it settled and paid, some waiting, a few that differ. */
final readonly class LarkmoorSettling
{
    /** Days after the receipt within which most send their invoice. */
    private const SENT_WITHIN = 3;
    /** So old, an invoice is settled; younger ones wait, those of the last days have not come. */
    private const SETTLED_AFTER = 16;
    private const ENTERED_AFTER = 5;
    /** Of those that wait, one asks for goods that did not come, one for more than agreed. */
    private const SHORT = 2;
    private const DEAR = 6;
    /** One before was too dear as well, and a credit note was asked for. */
    private const DISPUTED = 3;
    private const BONUS = '65.00';
    private const CASH = '58000';

    public function __construct(
        private EntityManagerInterface $entities,
        private Invoices $invoices,
        private Person $bookkeeper,
        private Person $owner,
        private \DateTimeImmutable $now,
    ) {
    }

    public function load(): void
    {
        $chance = new Chance('settling');
        $waiting = 0;
        foreach ($this->invoices->uninvoiced() as $i => $receipt) {
            $age = (int) $receipt->day->diff($this->now)->days;
            if ($age < self::ENTERED_AFTER) {
                continue;
            }
            $invoice = $this->invoice($receipt, $i, $chance);
            $waits = $age < self::SETTLED_AFTER;
            $waiting += $waits ? 1 : 0;
            foreach ($receipt->packs as $id => $packs) {
                $this->line(
                    $invoice,
                    $id,
                    BigDecimal::of($packs),
                    $waits && [] === $invoice->lines() ? $waiting : 0,
                );
            }
            if (!$waits) {
                $this->settle($invoice);
            }
            $this->entities->persist($invoice);
        }
        $this->accounts();
        $this->credit();
        $this->entities->flush();
    }

    /** Accounts of made-up banks: every supplier's but one's is confirmed; of one another is asked for. */
    private function accounts(): void
    {
        $suppliers = $this->entities->getRepository(Supplier::class)->findBy([], ['id' => 'ASC']);
        $since = $this->now->modify('-200 days');
        foreach ($suppliers as $n => $supplier) {
            if (0 === $n) {
                continue;
            }
            $account = new SupplierAccount($supplier, self::iban($n), '', $supplier->name(), $this->bookkeeper, $since);
            $account->decide(true, $this->owner, $since, false);
            $this->entities->persist($account);
        }
        $asked = $this->now->modify('-1 day');
        $this->entities->persist(
            new SupplierAccount($suppliers[1], self::iban(90), '', $suppliers[1]->name(), $this->bookkeeper, $asked),
        );
        $business = $this->entities->getRepository(Business::class)->findOneBy([]);
        $business?->paysFrom(self::iban(7), 'LARKIE2DXXX');
        $business?->has(BigDecimal::of(self::CASH), $this->now->modify('-1 day'));
    }

    /** Of a bank XXXX that is nobody's, with check digits that fit. */
    private static function iban(int $n): Iban
    {
        $account = sprintf('XXXX000000%08d', 1000 + $n);
        for ($check = 2; $check < 99; ++$check) {
            try {
                return Iban::of(sprintf('IE%02d%s', $check, $account));
            } catch (InvalidValue) {
                continue;
            }
        }
        throw new \LogicException('One of the check digits fits.');
    }

    private function invoice(Uninvoiced $receipt, int $i, Chance $chance): Invoice
    {
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $receipt->supplierCode])
            ?? throw new \LogicException('What came has a supplier.');
        $first = $this->entities->find(OrderLine::class, (int) array_key_first($receipt->packs))
            ?? throw new \LogicException('What came was ordered.');
        $day = $receipt->day->modify(sprintf('+%d days', $chance->between(0, self::SENT_WITHIN)));

        return new Invoice(
            $supplier,
            sprintf('%s%d', mb_substr($supplier->name(), 0, 1), 20417 + 7 * $i),
            $day,
            ExchangeRate::of($first->order->rate()->home, $supplier->currency(), $first->order->rate()->foreignForOne),
            $this->bookkeeper,
            $day->modify('+1 day 09:40'),
            'demo-'.$receipt->receipt,
        );
    }

    /** @param int $nth of those that wait, for its first line; else 0 */
    private function line(Invoice $invoice, int $id, BigDecimal $came, int $nth): void
    {
        $line = $this->entities->find(OrderLine::class, $id) ?? throw new \LogicException('What came was ordered.');
        $asked = $came;
        $price = $line->price();
        if (self::SHORT === $nth) {
            $asked = $came->plus(3);
        } elseif (in_array($nth, [self::DEAR, self::DISPUTED], true)) {
            $price = $price->multipliedBy('1.03')->toScale(2, RoundingMode::HalfUp);
        }
        $entered = new InvoiceLine(
            $invoice,
            count($invoice->lines()) + 1,
            $line,
            $line->description,
            $asked,
            $price,
            $line->tax()->percent,
        );
        $entered->weigh($came);
        if (self::DISPUTED === $nth) {
            $entered->decide(null, PriceVerdict::Credit);
        }
    }

    /** What a supplier gave for a good year, and is to be taken off what they are paid next. */
    private function credit(): void
    {
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['code' => 'OSTREL'])
            ?? throw new \LogicException('Larkmoor buys wax.');
        $day = $this->now->modify('-6 days');
        $note = new CreditNote($supplier, mb_substr($supplier->name(), 0, 1).'G-118', $day, $supplier->currency()->code,
            BigDecimal::one(), $this->bookkeeper, $day->modify('+1 day 10:05'), 'demo-credit');
        new CreditNoteLine($note, 1, 'Bonus for the year', BigDecimal::of(self::BONUS), BigDecimal::zero(), null, null);
        $this->entities->persist($note);
    }

    private function settle(Invoice $invoice): void
    {
        $at = $invoice->enteredAt->modify('+1 day 11:15');
        $invoice->release($this->owner, $at);
        $until = $invoice->supplier->terms()?->discountUntil($invoice->day);
        $best = null !== $until && $until > $at ? $until : $invoice->payable()->dueOn();
        if ($best < $this->now->setTime(0, 0)) {
            $invoice->pay($best, $invoice->rate(), $this->bookkeeper);
        }
    }
}
