<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Sourcing\QuoteSheet;

/**
 * A quote as a CSV file: a row for each item and quantity, with empty columns for the answer.
 *
 * @phpstan-import-type AnswerLine from QuoteAnswer
 */
final readonly class QuoteCsv implements QuoteSheet
{
    private const COLUMNS = [
        'line',
        'our_code',
        'description',
        'unit',
        'quantity',
        'price',
        'most',
        'steps_of',
        'your_code',
        'alternative',
        'lead_days',
        'valid_until',
        'charges',
        'note',
    ];

    public function __construct(private TableFile $table)
    {
    }

    public function blank(Quote $quote): string
    {
        $rows = [self::COLUMNS];
        foreach ($quote->round->items() as $item) {
            foreach ($item->quantities() as $quantity) {
                $rows[] = [
                    (string) $item->position,
                    $item->item->code ?? '',
                    $item->description,
                    $item->unit(),
                    (string) $quantity,
                    '',
                    '',
                    '',
                    '',
                    '',
                    '',
                    '',
                    '',
                    '',
                ];
            }
        }

        return $this->table->write($rows);
    }

    public function read(Quote $quote, string $csv): array
    {
        return CsvFile::ofBytes($csv, fn (CsvFile $file): array => $this->answer($quote, $file));
    }

    /**
     * @return array{lines: list<AnswerLine>, leadDays: int, validUntil: \DateTimeImmutable|null, charges: string|null,
     *      note: string}
     */
    private function answer(Quote $quote, CsvFile $file): array
    {
        foreach (['line', 'quantity', 'price', 'lead_days'] as $needed) {
            if (!in_array($needed, $file->columns, true)) {
                throw InvalidValue::because(
                    sprintf(
                        'The file has no column “%s”. Fill in the one that came with %s; its first line must stay.',
                        $needed,
                        $quote->round->number,
                    ),
                );
            }
        }
        $items = [];
        foreach ($quote->round->items() as $item) {
            $items[$item->position] = $item;
        }
        $problems = $lines = [];
        $numerals = $file->numerals();
        $lead = $valid = $charges = null;
        $note = '';
        foreach ($file->rows() as $number => $values) {
            $row = new Row($number, $values, $numerals);
            $position = $row->integer('line', 1, 9999);
            $item = $items[$position ?? 0] ?? null;
            $quantity = $row->decimal('quantity');
            $price = $row->decimal('price', 6);
            $most = $row->decimal('most');
            $steps = $row->decimal('steps_of');
            if (null === $item) {
                $row->refuse('line', sprintf('%s asks for no such line', $quote->round->number));
            } elseif (null !== $price && null !== $quantity && !self::asks($item, $quantity)) {
                $row->refuse('quantity', 'not a quantity that was asked for');
            }
            $lead ??= $row->integer('lead_days', 0, 365);
            $valid ??= $row->day('valid_until');
            $charges ??= $row->decimal('charges', 2);
            $note = '' === $note ? $row->text('note', 1000) : $note;
            array_push($problems, ...$row->problems);
            if (null !== $item && null !== $price && null !== $quantity) {
                $lines[$item->id] ??= [
                    'item' => $item->id,
                    'prices' => [],
                    'most' => null,
                    'multiple' => null,
                    'code' => '',
                    'alternate' => '',
                ];
                $lines[$item->id]['prices'][] = [(string) $quantity, (string) $price];
                $lines[$item->id]['most'] ??= null === $most ? null : (string) $most;
                $lines[$item->id]['multiple'] ??= null === $steps || !$steps->isPositive() ? null : (string) $steps;
                $lines[$item->id]['code'] = $row->text('your_code', 40) ?: $lines[$item->id]['code'];
                $lines[$item->id]['alternate'] = $row->text('alternative', 200) ?: $lines[$item->id]['alternate'];
            }
        }
        if ([] === $problems && [] !== $lines && null === $lead) {
            throw InvalidValue::because(
                'Column “lead_days” is empty everywhere; say in one row how many days delivery takes.',
            );
        }
        if ([] !== $problems) {
            throw InvalidValue::because(
                implode(
                    ' ',
                    array_map(
                        static fn (array $problem): string => sprintf(
                            'Row %d, %s “%s”: %s.',
                            $problem[0],
                            $problem[1],
                            $problem[2],
                            rtrim($problem[3], '.'),
                        ),
                        array_slice($problems, 0, 20),
                    ),
                ),
            );
        }

        return [
            'lines' => array_values($lines),
            'leadDays' => $lead ?? 0,
            'validUntil' => $valid,
            'charges' => null === $charges ? null : (string) $charges,
            'note' => $note,
        ];
    }

    private static function asks(QuoteItem $item, BigDecimal $quantity): bool
    {
        return [] !==
            array_filter($item->quantities(), static fn (BigDecimal $asked): bool => $asked->isEqualTo($quantity));
    }
}
