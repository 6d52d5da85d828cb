<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\TaxCategory;

/**
 * What makes an invoice valid: the rules of EN 16931-1:2017, 6.4, that concern what is read here. Integrity BR-01 to
 * BR-55, conditions BR-CO-04 to BR-CO-25, decimals BR-DEC, and by tax category BR-S-05 to BR-S-10 with their like for
 * Z, E, AE, IC (K), G and O. Numbers and wording of the rules are from memory of the standard's table; the sums were
 * checked against its clause 6.4.
 */
final readonly class InvoiceRules
{
    /** In the names of rules the category for goods from another member state is called IC. */
    private const NAMES = ['K' => 'IC'];

    /** @var list<BrokenRule> */
    private array $broken;

    private function __construct(private PaperInvoice $paper)
    {
        $this->broken = [
            ...$this->header(),
            ...$this->lines(),
            ...$this->charges(),
            ...$this->sums(),
            ...$this->taxes(),
        ];
    }

    /** @return list<BrokenRule> in the order of the document; empty for a valid one */
    public static function broken(PaperInvoice $paper): array
    {
        return (new self($paper))->broken;
    }

    /** @return list<BrokenRule> */
    private function header(): array
    {
        $paper = $this->paper;
        $found = [];
        $must = static function (string $rule, bool $kept, string $words) use (&$found): void {
            if (!$kept) {
                $found[] = new BrokenRule($rule, $words);
            }
        };
        $must('BR-02', '' !== $paper->number, 'it has no number (BT-1)');
        $must('BR-03', '' !== $paper->day, 'it has no day (BT-2)');
        $must('BR-03', '' === $paper->day || self::isDay($paper->day), sprintf('“%s” is no day (BT-2)', $paper->day));
        $must('BR-04', '' !== $paper->type, 'it does not say what kind it is (BT-3)');
        $must(
            'BR-CL-01',
            '' === $paper->type || in_array($paper->type, [...PaperInvoice::INVOICES, ...PaperInvoice::CREDITS], true),
            sprintf('“%s” is neither an invoice nor a credit note (BT-3)', $paper->type),
        );
        $must('BR-05', '' !== $paper->currency, 'it has no currency (BT-5)');
        $must(
            'BR-CL-04',
            '' === $paper->currency || self::isCurrency($paper->currency),
            sprintf('“%s” is no currency (BT-5)', $paper->currency),
        );
        $must('BR-06', '' !== $paper->seller, 'it does not name the seller (BT-27)');
        $must('BR-07', '' !== $paper->buyer, 'it does not name the buyer (BT-44)');
        $must('BR-16', [] !== $paper->lines, 'it has no lines (BG-25)');
        $must(
            'BR-CO-25',
            $paper->isCredit() || '' !== $paper->dueOn.$paper->terms
                || !($paper->totals->payable?->isPositive() ?? false),
            'something is to be paid, and it says neither by when (BT-9) nor on which terms (BT-20)',
        );

        return $found;
    }

    /** @return list<BrokenRule> */
    private function lines(): array
    {
        $found = [];
        foreach ($this->paper->lines as $i => $line) {
            $called = sprintf('line %s', '' === $line->id ? '#'.($i + 1) : $line->id);
            $must = static function (string $rule, bool $kept, string $words) use (&$found, $called): void {
                if (!$kept) {
                    $found[] = new BrokenRule($rule, $called.' '.$words);
                }
            };
            $must('BR-21', '' !== $line->id, 'has no number (BT-126)');
            $must('BR-22', null !== $line->quantity, 'has no quantity (BT-129)');
            $must('BR-23', '' !== $line->unit, 'says no unit (BT-130)');
            $must('BR-24', null !== $line->net, 'has no amount (BT-131)');
            $must('BR-25', '' !== $line->name, 'does not name what is sold (BT-153)');
            $must('BR-26', null !== $line->price, 'has no price (BT-146)');
            $must('BR-27', !($line->price?->isNegative() ?? false), 'has a price below 0 (BT-146)');
            $must('BR-CO-04', '' !== $line->category, 'says no tax category (BT-151)');
            $must('BR-DEC-23', self::hasCents($line->net), 'has an amount of more than 2 decimals (BT-131)');
            if (null !== $line->quantity && null !== $line->price && null !== $line->net && $line->per->isPositive()) {
                $due = $line->quantity->multipliedBy($line->price)->dividedBy($line->per, 10, RoundingMode::HalfUp)
                    ->minus($line->less)->plus($line->more)->toScale(2, RoundingMode::HalfUp);
                // Not among the numbered rules: PEPPOL-EN16931-R120 has it, and so has the text of BT-131.
                $must('BT-131', $due->minus($line->net)->abs()->isLessThanOrEqualTo('0.01'), sprintf(
                    'has %s; quantity and price come to %s',
                    $line->net,
                    $due,
                ));
            }
            array_push($found, ...self::rate($called, $line->category, $line->percent, '05'));
        }

        return $found;
    }

    /** @return list<BrokenRule> */
    private function charges(): array
    {
        $found = [];
        foreach ($this->paper->charges as $one) {
            $called = $one->isCharge ? 'a charge' : 'an allowance';
            [$amount, $category, $reason] = $one->isCharge
                ? ['BR-36', 'BR-37', 'BR-CO-22'] : ['BR-31', 'BR-32', 'BR-CO-21'];
            if (null === $one->amount) {
                $found[] = new BrokenRule($amount, $called.' has no amount');
            }
            if ('' === $one->category) {
                $found[] = new BrokenRule($category, $called.' says no tax category');
            }
            if ('' === $one->reason) {
                $found[] = new BrokenRule($reason, $called.' has no reason');
            }
            if (!self::hasCents($one->amount)) {
                $rule = $one->isCharge ? 'BR-DEC-05' : 'BR-DEC-01';
                $found[] = new BrokenRule($rule, $called.' of more than 2 decimals');
            }
            array_push(
                $found,
                ...self::rate($called, $one->category, $one->percent, $one->isCharge ? '07' : '06'),
            );
        }

        return $found;
    }

    /** @return list<BrokenRule> */
    private function sums(): array
    {
        $totals = $this->paper->totals;
        $found = [];
        foreach (
            [
                ['BR-12', $totals->lines, 'no sum of the lines (BT-106)'],
                ['BR-13', $totals->withoutTax, 'no sum without tax (BT-109)'],
                ['BR-14', $totals->withTax, 'no sum with tax (BT-112)'],
                ['BR-15', $totals->payable, 'no amount to pay (BT-115)'],
            ] as [$rule, $sum, $words]
        ) {
            if (null === $sum) {
                $found[] = new BrokenRule($rule, 'it has '.$words);
            }
        }
        $zero = BigDecimal::zero();
        [$less, $more] = [$totals->less ?? $zero, $totals->more ?? $zero];
        $tax = self::sum(array_map(static fn (PaperTax $one): ?BigDecimal => $one->amount, $this->paper->taxes));
        $of = fn (bool $isCharge): BigDecimal => self::sum(array_map(
            static fn (PaperCharge $one): ?BigDecimal => $one->amount,
            array_filter($this->paper->charges, static fn (PaperCharge $one): bool => $one->isCharge === $isCharge),
        ));
        $lines = self::sum(array_map(static fn (PaperLine $one): ?BigDecimal => $one->net, $this->paper->lines));
        foreach (
            [
                ['BR-CO-10', $totals->lines, $lines, 'the lines come to (BT-106)'],
                ['BR-CO-11', $totals->less ?? $zero, $of(false), 'the allowances come to (BT-107)'],
                ['BR-CO-12', $totals->more ?? $zero, $of(true), 'the charges come to (BT-108)'],
                ['BR-CO-13', $totals->withoutTax, $totals->lines?->minus($less)->plus($more),
                    'lines less allowances with charges are (BT-109)', ],
                ['BR-CO-14', $totals->tax ?? $zero, $tax, 'the taxes come to (BT-110)'],
                ['BR-CO-15', $totals->withTax, $totals->withoutTax?->plus($totals->tax ?? $zero),
                    'without tax and the tax are (BT-112)', ],
                ['BR-CO-16', $totals->payable,
                    $totals->withTax?->minus($totals->prepaid ?? $zero)->plus($totals->rounding ?? $zero),
                    'with tax, less what is paid, and rounded is (BT-115)', ],
            ] as [$rule, $stands, $due, $words]
        ) {
            if (null !== $stands && null !== $due && !$stands->isEqualTo($due)) {
                $found[] = new BrokenRule($rule, sprintf('%s %s, and %s stands there', $words, $due, $stands));
            }
        }

        return $found;
    }

    /** @return list<BrokenRule> */
    private function taxes(): array
    {
        $found = [];
        if ([] === $this->paper->taxes) {
            return [new BrokenRule('BR-CO-18', 'it does not break the tax down (BG-23)')];
        }
        foreach ($this->paper->taxes as $one) {
            $called = trim($one->category.' '.($one->percent?->strippedOfTrailingZeros() ?? '')).' %';
            $name = self::NAMES[$one->category] ?? $one->category;
            foreach (
                [
                    ['BR-45', null === $one->taxable, 'says not what is taxed (BT-116)'],
                    ['BR-46', null === $one->amount, 'has no amount of tax (BT-117)'],
                    ['BR-47', '' === $one->category, 'says no category (BT-118)'],
                    ['BR-48', null === $one->percent && TaxCategory::OutsideScope->value !== $one->category,
                        'has no rate (BT-119)', ],
                    ['BR-DEC-19', !self::hasCents($one->taxable), 'is of more than 2 decimals (BT-116)'],
                    ['BR-DEC-20', !self::hasCents($one->amount), 'is of more than 2 decimals (BT-117)'],
                ] as [$rule, $isBroken, $words]
            ) {
                if ($isBroken) {
                    $found[] = new BrokenRule($rule, sprintf('tax %s %s', $called, $words));
                }
            }
            if (null === $one->taxable || null === $one->amount || null === TaxCategory::tryFrom($one->category)) {
                continue;
            }
            $due = $one->taxable->multipliedBy($one->percent ?? 0)->dividedBy(100, 2, RoundingMode::HalfUp);
            if ($due->minus($one->amount)->abs()->isGreaterThan('0.01')) {
                $found[] = new BrokenRule('BR-CO-17', sprintf(
                    '%s of %s is %s, and %s stands there (BT-117)', $called, $one->taxable, $due, $one->amount,
                ));
            }
            $taxable = $this->taxable($one);
            if (!$taxable->isEqualTo($one->taxable)) {
                $found[] = new BrokenRule(sprintf('BR-%s-08', $name), sprintf(
                    'what is taxed at %s comes to %s, and %s stands there (BT-116)', $called, $taxable, $one->taxable,
                ));
            }
            if (TaxCategory::Standard->value !== $one->category && TaxCategory::ZeroRated->value !== $one->category
                && '' === $one->whyNone
            ) {
                $found[] = new BrokenRule(sprintf('BR-%s-10', $name), sprintf(
                    'it does not say why there is no tax: %s (BT-120)', $one->category,
                ));
            }
        }

        return $found;
    }

    /** All that stands under one category and rate: lines and charges less allowances. */
    private function taxable(PaperTax $tax): BigDecimal
    {
        $alike = static fn (string $category, ?BigDecimal $percent): bool => $category === $tax->category
            && ($percent ?? BigDecimal::zero())->isEqualTo($tax->percent ?? 0);
        $sum = BigDecimal::zero();
        foreach ($this->paper->lines as $line) {
            $sum = $alike($line->category, $line->percent) ? $sum->plus($line->net ?? 0) : $sum;
        }
        foreach ($this->paper->charges as $one) {
            if ($alike($one->category, $one->percent)) {
                $sum = $one->isCharge ? $sum->plus($one->amount ?? 0) : $sum->minus($one->amount ?? 0);
            }
        }

        return $sum;
    }

    /**
     * A standard rate is above 0, every other category has none, and one outside the scope of tax has no rate at all.
     *
     * @param string $last of the rule's number: 05 for a line, 06 for an allowance, 07 for a charge
     *
     * @return list<BrokenRule>
     */
    private static function rate(string $called, string $category, ?BigDecimal $percent, string $last): array
    {
        if ('' === $category) {
            return [];
        }
        $known = TaxCategory::tryFrom($category);
        if (null === $known) {
            return [new BrokenRule('BR-CL-17', sprintf('%s has a tax category of “%s”', $called, $category))];
        }
        $rate = $percent ?? BigDecimal::zero();
        $isKept = match ($known) {
            TaxCategory::Standard => $rate->isPositive(),
            TaxCategory::OutsideScope => null === $percent || $percent->isZero(),
            default => $rate->isZero(),
        };

        return $isKept ? [] : [new BrokenRule(
            sprintf('BR-%s-%s', self::NAMES[$category] ?? $category, $last),
            sprintf('%s is %s, at %s %%', $called, $known->words(), $rate->strippedOfTrailingZeros()),
        )];
    }

    /** @param array<BigDecimal|null> $amounts */
    private static function sum(array $amounts): BigDecimal
    {
        return array_reduce(
            $amounts,
            static fn (BigDecimal $sum, ?BigDecimal $one): BigDecimal => $sum->plus($one ?? 0),
            BigDecimal::zero(),
        );
    }

    private static function hasCents(?BigDecimal $amount): bool
    {
        return null === $amount || $amount->strippedOfTrailingZeros()->getScale() <= 2;
    }

    private static function isDay(string $day): bool
    {
        try {
            Day::read($day);

            return true;
        } catch (InvalidValue) {
            return false;
        }
    }

    private static function isCurrency(string $code): bool
    {
        try {
            Currency::of($code);

            return true;
        } catch (InvalidValue) {
            return false;
        }
    }
}
