<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNoteLine;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\ExpectedCredit;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Receiving\SendBack;

/** Enters a credit note; what it makes good is made good, and what is to come back lessens the next payment. */
final readonly class EnterCredit
{
    public function __construct(
        private EntityManagerInterface $entities,
        private CreditNotes $credits,
        private Rates $rates,
        private SendBack $sendBack,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Problems $problems by number, day, total, the keys of the lines, or none
     *
     * @return CreditNote|null null where something is wrong, and nothing is saved
     */
    public function enter(AskedCredit $asked, Person $by, Problems $problems): ?CreditNote
    {
        try {
            return $this->whole->take(fn (): ?CreditNote => $this->entered($asked, $by, $problems));
        } catch (Refused $refused) {
            // What it was to make good was made good meanwhile: nothing of it is kept.
            $problems->refuse('', $refused->getMessage());

            return null;
        }
    }

    /** @throws Refused */
    private function entered(AskedCredit $asked, Person $by, Problems $problems): ?CreditNote
    {
        $this->entities->getConnection()->fetchOne(
            'SELECT id FROM supplier WHERE id = ? FOR UPDATE',
            [$asked->supplier->id],
        );
        $same = $this->entities->getRepository(CreditNote::class)->findOneBy(['idempotencyKey' => $asked->key]);
        if (null !== $same) {
            return $same;
        }
        $this->check($asked, $problems);
        if (null === $asked->day || !$problems->areNone()) {
            return null;
        }
        $rate = $this->rates->on($asked->supplier->currency()->code, $this->clock->now());
        $note = new CreditNote(
            $asked->supplier,
            $asked->number,
            $asked->day,
            $rate->foreign->code,
            $rate->foreignForOne,
            $by,
            $this->clock->now(),
            $asked->key,
        );
        $returns = $this->lines($note, $asked, $problems);
        if (null === $returns) {
            return null;
        }
        $sum = $note->sums()->total->amount;
        if (!$sum->isPositive()) {
            $problems->refuse('', sprintf('It comes to %s with tax; a credit note gives something back.', $sum));

            return null;
        }
        if (null !== $asked->total && !$asked->total->isEqualTo($sum)) {
            $problems->refuse('total', sprintf(
                'The lines with tax come to %s, not %s.',
                $sum,
                $asked->total->toScale(2),
            ));

            return null;
        }
        if ($note->due()->isZero()) {
            $note->takeOff($asked->day);
        }
        $this->entities->persist($note);
        foreach ($returns as $return) {
            $this->sendBack->settle($return, $note->number, $by);
        }
        $this->entities->flush();
        $this->audit->note($by, $asked->supplier->code, sprintf(
            'Credit note %s: %s %s with tax, %s to come back',
            $note->number,
            $note->currency,
            $sum,
            $note->due()->amount,
        ));

        return $note;
    }

    private function check(AskedCredit $asked, Problems $problems): void
    {
        if ('' === $asked->number) {
            $problems->refuse('number', 'Type the number on their credit note.');
        }
        $known = $this->credits->byNumber($asked->supplier, $asked->number);
        if (null !== $known) {
            $problems->refuse('number', EnterInvoice::enteredBefore($known));
        }
        if (null === $asked->day) {
            $problems->refuse('day', 'Say which day stands on it.');
        } elseif ($asked->day > $this->clock->now()) {
            $problems->refuse('day', sprintf('%s is a day to come.', $asked->day->format('j M Y')));
        }
        if ([] === $asked->lines) {
            $problems->refuse('', 'Nothing is on this credit note: tick what it makes good, or type an amount.');
        }
    }

    /** @return list<SupplierReturn>|null that it makes good; null if a line is wrong */
    private function lines(CreditNote $note, AskedCredit $asked, Problems $problems): ?array
    {
        $expected = [];
        foreach ($this->credits->expected($asked->supplier) as $one) {
            $expected[$one->key] = $one;
        }
        $returns = [];
        $position = 0;
        foreach ($asked->lines as $key => [$words, $amount, $percent]) {
            $answers = $expected[$key] ?? null;
            $isKnown = str_starts_with($key, CreditNotes::DISPUTED) || str_starts_with($key, CreditNotes::BACK);
            if ($isKnown && null === $answers) {
                $problems->refuse($key, sprintf('%s is made good already.', $words));
                continue;
            }
            [$disputed, $back] = $this->answered($answers);
            if (null !== $back) {
                $returns[] = $back;
            }
            $problems->attempt($key, static fn (): CreditNoteLine => new CreditNoteLine(
                $note,
                ++$position,
                $words,
                BigDecimal::of($amount),
                $percent,
                $disputed,
                $back,
            ));
        }

        return $problems->areNone() ? $returns : null;
    }

    /** @return array{InvoiceLine|null, SupplierReturn|null} */
    private function answered(?ExpectedCredit $one): array
    {
        return match (true) {
            null === $one => [null, null],
            $one->isPaid => [null, $this->entities->find(SupplierReturn::class, $one->id)],
            default => [$this->entities->find(InvoiceLine::class, $one->id), null],
        };
    }
}
