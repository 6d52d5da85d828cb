<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Settling\Paper\PaperCharge;
use TallBarrel\Core\Settling\Paper\PaperInvoice;
use TallBarrel\Core\Settling\Paper\PaperLine;
use TallBarrel\Core\Settling\Paper\PaperTax;
use TallBarrel\Core\Settling\Paper\PaperTotals;
use TallBarrel\Work\Settling\PaperReader;

/**
 * An invoice as a CSV file: a row for each line, those that say “yes” under charge for freight and the like. Number,
 * day, currency, supplier and order may stand in the first row alone; the sum with tax, where a row has it, must be
 * that of the lines.
 */
final readonly class InvoiceCsv implements PaperReader
{
    private const NEEDED = ['number', 'day', 'description', 'quantity', 'price'];
    private const MOST_LINES = 5000;
    private const NAMED = 5;

    public function read(string $name, string $bytes): PaperInvoice
    {
        return CsvFile::ofBytes($bytes, fn (CsvFile $file): PaperInvoice => $this->paper($name, $file));
    }

    private function paper(string $name, CsvFile $file): PaperInvoice
    {
        $missing = array_diff(self::NEEDED, $file->columns);
        if ([] !== $missing) {
            throw InvalidValue::because(sprintf('“%s” has no column “%s”.', $name, implode('”, “', $missing)));
        }
        $numerals = $file->numerals();
        $head = array_fill_keys(['number', 'currency', 'supplier', 'order'], '');
        $day = $total = null;
        $lines = $charges = $problems = [];
        foreach ($file->rows() as $number => $values) {
            $row = new Row($number, $values, $numerals);
            foreach ($head as $column => $known) {
                $head[$column] = '' === $known ? $row->text($column, 120) : $known;
            }
            $day ??= $row->day('day');
            $total ??= $row->decimal('total', 2);
            $quantity = $row->decimal('quantity');
            $price = $row->decimal('price', 6, true);
            $tax = $row->decimal('tax', 2) ?? BigDecimal::zero();
            if (null === $quantity || null === $price) {
                $row->refuse(null === $quantity ? 'quantity' : 'price', 'missing');
            } else {
                $net = $quantity->multipliedBy($price)->toScale(2, RoundingMode::HalfUp);
                $category = ($tax->isZero() ? TaxCategory::ZeroRated : TaxCategory::Standard)->value;
                $words = $row->required('description');
                if ($row->yes('charge', false)) {
                    $charges[] = new PaperCharge(!$net->isNegative(), $net->abs(), $words, $category, $tax);
                } else {
                    $lines[] = new PaperLine((string) ($number - 1), $words, $quantity, 'C62', $net, $price,
                        BigDecimal::one(), BigDecimal::zero(), BigDecimal::zero(), $category, $tax,
                        $row->text('their_code', 40), $row->text('our_code', 40), $row->text('gtin', 14));
                }
            }
            array_push($problems, ...$row->problems);
            if (count($lines) + count($charges) > self::MOST_LINES) {
                throw InvalidValue::because(sprintf('“%s” has over %d lines.', $name, self::MOST_LINES));
            }
        }
        self::mustBeRight($name, $problems);
        [$totals, $taxes] = self::summed($lines, $charges, $total);

        return new PaperInvoice($head['number'], $day?->format('Y-m-d') ?? '', '380', $head['currency'], $head['order'],
            '', 'as agreed', $head['supplier'] ?: '-', '', '-', '', '', $totals, $lines, $charges, $taxes);
    }

    /** @param list<array{int, string, string, string}> $problems line, column, value, what is wrong */
    private static function mustBeRight(string $name, array $problems): void
    {
        if ([] === $problems) {
            return;
        }
        $named = array_map(
            static fn (array $one): string => sprintf('line %d, %s “%s”: %s', ...$one),
            array_slice($problems, 0, self::NAMED),
        );
        $more = count($problems) - count($named);
        throw InvalidValue::because(sprintf(
            '“%s”: %s%s.',
            $name,
            implode('; ', $named),
            $more > 0 ? sprintf('; and %d more', $more) : '',
        ));
    }

    /**
     * @param list<PaperLine>   $lines
     * @param list<PaperCharge> $charges
     *
     * @return array{PaperTotals, list<PaperTax>}
     */
    private static function summed(array $lines, array $charges, ?BigDecimal $total): array
    {
        $zero = BigDecimal::zero()->toScale(2);
        $goods = $less = $more = $taxed = $zero;
        $alike = [];
        $add = static function (string $category, ?BigDecimal $percent, BigDecimal $amount) use (&$alike): void {
            $key = $category.$percent;
            $alike[$key] = [$category, $percent, ($alike[$key][2] ?? BigDecimal::zero())->plus($amount)];
        };
        foreach ($lines as $line) {
            $goods = $goods->plus($line->net ?? 0);
            $add($line->category, $line->percent, $line->net ?? $zero);
        }
        foreach ($charges as $one) {
            $amount = $one->amount ?? $zero;
            [$less, $more] = $one->isCharge ? [$less, $more->plus($amount)] : [$less->plus($amount), $more];
            $add($one->category, $one->percent, $one->isCharge ? $amount : $amount->negated());
        }
        $taxes = [];
        foreach ($alike as [$category, $percent, $sum]) {
            $tax = $sum->multipliedBy($percent ?? 0)->dividedBy(100, 2, RoundingMode::HalfUp);
            $taxed = $taxed->plus($tax);
            $taxes[] = new PaperTax($sum, $tax, $category, $percent);
        }
        $net = $goods->minus($less)->plus($more);
        $with = $total?->toScale(2) ?? $net->plus($taxed);

        return [new PaperTotals($goods, $less, $more, $net, $taxed, $with, null, null, $with), $taxes];
    }
}
