<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Offer\PriceListLine;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Sourcing\ListHeadings;
use TallBarrel\Work\Sourcing\PriceListFormat;

/** A price list as CSV: one line for each thing, or one for each break of it. */
final readonly class PriceListCsv implements PriceListFormat
{
    private const SHOWN = 3;

    public function __construct(private TableFile $table)
    {
    }

    public function columns(): array
    {
        return [
            'code' => 'their code, or ours below *',
            'prices' => 'of one pack; with breaks 1=9.30 40=8.97 *',
            'from' => 'or one line for each break: from so many packs',
            'item' => 'our code, for what is new',
            'gtin' => 'or its GTIN',
            'description' => 'what they call it',
            'pack' => 'case, each',
            'content' => 'stock units in it',
            'minimum' => 'packs, of what is new',
            'multiple' => 'packs in steps of',
            'lead_days' => 'from order to delivery',
            'currency' => 'checked, if there',
        ];
    }

    public function write(array $offers): string
    {
        $rows = [['code', 'prices', 'item', 'description', 'pack', 'content', 'currency']];
        foreach ($offers as $offer) {
            $rows[] = [
                $offer->supplierCode(),
                $offer->listPrices()->label(),
                $offer->item->code,
                $offer->description() ?: $offer->item->name(),
                $offer->packName,
                (string) $offer->rule()->pack->content->strippedOfTrailingZeros(),
                $offer->supplier->currency()->code,
            ];
        }

        return $this->table->write($rows);
    }

    public function headings(string $file, array $known): ListHeadings
    {
        $csv = CsvFile::open($file);
        $headings = $first = [];
        foreach ($csv->headings as $heading) {
            $headings[CsvFile::key($heading)] ??= $heading;
        }
        foreach ($csv->lines() as [$cells]) {
            if (count($first) >= self::SHOWN) {
                break;
            }
            $first[] = $cells;
        }

        return new ListHeadings(
            $headings,
            HeadingGuess::of($csv->headings, array_keys($this->columns()), $known),
            $first,
        );
    }

    public function read(
        string $file,
        array $mapping,
        Currency $currency,
        array &$problems,
        array &$unread,
    ): \Iterator {
        $csv = CsvFile::open($file, [], $mapping);
        $missing = array_diff(['code', 'prices'], $csv->columns);
        if ([] !== $missing) {
            throw InvalidValue::because(
                sprintf(
                    'The file has no column “%s”. Its first line must name the columns: %s.',
                    implode('”, “', $missing),
                    implode(', ', array_keys($this->columns())),
                ),
            );
        }
        $byBreak = in_array('from', $csv->columns, true);
        $numerals = $csv->numerals();
        /** @var array<string, array{Row, list<string>, bool}> $things */
        $things = [];
        foreach ($csv->rows() as $number => $values) {
            $row = new Row($number, $values, $numerals);
            $code = $row->has('item') || $row->has('gtin') ? $row->text('code', 40) : $row->required('code', 40);
            $typed = $row->required('prices');
            if ($row->has('currency') && strtoupper($row->text('currency')) !== $currency->code) {
                $row->refuse('currency', sprintf('%s sells in %s', 'this supplier', $currency->code));
            }
            $from = $row->decimal('from');
            $key = strtoupper(
                ('' === $code ? '='.$row->text('item', 40).$row->text('gtin') : $code).
                    '/'.
                    $row->text('pack', 30),
            );
            if (isset($things[$key]) && (!$byBreak || null === $from)) {
                $row->refuse('code', sprintf('stands in line %d already', $things[$key][0]->line));
            }
            if (!$row->isGood()) {
                array_push($problems, ...$row->problems);
                $unread[] = $code;
                if (isset($things[$key])) {
                    $things[$key][2] = false;
                }
                continue;
            }
            $things[$key] ??= [$row, [], true];
            $things[$key][1][] = null === $from ? $typed : $from.'='.$typed;
        }
        foreach ($things as [$row, $steps, $whole]) {
            if (!$whole) {
                $row->refuse('code', 'another of its breaks cannot be read, so none is taken');
            }
            $prices = $row->attempt('prices', static function () use ($steps, $row): PriceBreaks {
                $prices = PriceBreaks::read(implode(' ', $steps), numerals: $row->numerals);
                foreach ($prices->steps as $step) {
                    if (!$step['price']->isPositive()) {
                        throw InvalidValue::because('a price of 0; leave the line out if it is not sold any more');
                    }
                }

                return $prices;
            });
            $gtin = $row->attempt(
                'gtin',
                static fn (): string => $row->has('gtin') ? Gtin::of($row->text('gtin'))->digits : '',
            );
            $content = $row->decimal('content', 6);
            if (true === $content?->isZero()) {
                $row->refuse('content', 'a pack holds more than nothing');
            }
            $multiple = $row->decimal('multiple');
            if (true === $multiple?->isZero()) {
                $row->refuse('multiple', 'expected 1 or more');
            }
            $line = new PriceListLine(
                $row->line,
                $row->text('code'),
                $prices ?? PriceBreaks::read('1'),
                $row->text('item', 40),
                $gtin ?? '',
                $row->text('description', 160),
                $row->text('pack', 30),
                $content,
                $row->decimal('minimum'),
                $multiple,
                $row->integer('lead_days', 0, 365),
            );
            if ($row->isGood()) {
                yield $line;
            } else {
                array_push($problems, ...$row->problems);
                $unread[] = $row->text('code');
            }
        }
    }
}
