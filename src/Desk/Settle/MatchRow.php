<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\LineMatch;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Desk\Drawing\Staves;
use TallBarrel\Desk\Shell\Format;
use TallBarrel\Store\Settle\InvoiceLine;

/** A line of an invoice beside its order and what came. */
final readonly class MatchRow
{
    private function __construct(public InvoiceLine $line, public LineMatch $match, public ?Staves $staves)
    {
    }

    public static function of(InvoiceLine $line): self
    {
        $match = $line->match();

        return new self(
            $line,
            $match,
            null === $line->orderLine ? null : Staves::of(
                $match->ordered->toFloat(),
                $match->received->toFloat(),
                $match->invoiced->toFloat(),
            ),
        );
    }

    public function notReceived(): Money
    {
        return Money::of($this->match->valueNotReceived(), $this->line->invoice->currency)->rounded();
    }

    public function overcharged(): Money
    {
        return Money::of($this->match->valueOvercharged(), $this->line->invoice->currency)->rounded();
    }

    /** @return list<VerdictAct> what may be done about what differs; an accepted price is not taken back */
    public function acts(): array
    {
        $supplier = $this->line->invoice->supplier->name();
        $acts = [];
        if ($this->match->notReceived()->isPositive()) {
            $less = Format::money($this->notReceived());
            array_push(
                $acts,
                new VerdictAct('quantity', QuantityVerdict::AsReceived->value, 'Pay what came, '.$less.' less', null),
                new VerdictAct(
                    'quantity',
                    QuantityVerdict::Credit->value,
                    'Ask for a credit',
                    sprintf('Write to %s for a credit note of %s?', $supplier, $less),
                ),
                new VerdictAct(
                    'quantity',
                    QuantityVerdict::Awaited->value,
                    'They will send the '.Format::figure($this->match->notReceived()),
                    null,
                ),
            );
        }
        if ($this->match->overcharged()->isPositive() && PriceVerdict::Accepted !== $this->line->onPrice()) {
            $asked = Format::figure($this->match->asked, 4);
            array_push(
                $acts,
                new VerdictAct(
                    'price',
                    PriceVerdict::AsAgreed->value,
                    sprintf('Pay %s as agreed', Format::figure($this->match->agreed, 4)),
                    null,
                ),
                new VerdictAct(
                    'price',
                    PriceVerdict::Credit->value,
                    'Ask for a credit',
                    sprintf(
                        'Write to %s for a credit note of %s?',
                        $supplier,
                        Format::money($this->overcharged()),
                    ),
                ),
                new VerdictAct(
                    'price',
                    PriceVerdict::Accepted->value,
                    sprintf(null === $this->line->deposit ? 'Accept %s, price follows' : 'Accept %s', $asked),
                    null === $this->line->deposit
                        ? sprintf('Pay %s and make it their standing price from today?', $asked)
                        : null,
                ),
            );
        }

        return $acts;
    }

    /** @return list<string> what was decided */
    public function decided(): array
    {
        return array_values(array_filter([
            match ($this->line->onQuantity()) {
                QuantityVerdict::AsReceived => 'only what came is paid',
                QuantityVerdict::Credit => 'credit note asked for, only what came is paid',
                QuantityVerdict::Awaited => 'the rest is on its way, all is paid',
                null => null,
            },
            match ($this->line->onPrice()) {
                PriceVerdict::AsAgreed => 'the agreed price is paid',
                PriceVerdict::Credit => 'credit note asked for, the agreed price is paid',
                PriceVerdict::Accepted => null === $this->line->deposit
                    ? 'the asked price is paid, the standing price follows'
                    : 'the asked deposit is paid',
                null => null,
            },
        ], static fn (?string $words): bool => null !== $words));
    }

    /** What is not owed of the line, and why; null where all of it is. */
    public function less(): ?string
    {
        $words = [$this->line->words];
        if ($this->match->owedPacks()->isLessThan($this->line->packs)) {
            $words[] = sprintf('%s came', Format::figure($this->match->owedPacks()));
        }
        if ($this->match->owedPrice()->isLessThan($this->line->price)) {
            $words[] = sprintf('at %s', Format::figure($this->match->owedPrice(), 4));
        }

        return $this->line->asked()->minus($this->line->owed())->isZero() ? null : implode(', ', $words);
    }

    /** By how many percent the asked price lies above the agreed one. */
    public function percentAbove(): float
    {
        $agreed = $this->match->agreed->toFloat();

        return $agreed > 0 ? round(100 * ($this->match->asked->toFloat() / $agreed - 1), 1) : 0.0;
    }
}
