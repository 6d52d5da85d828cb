<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Rounds;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Work\Sourcing\AnswerQuote;
use TallBarrel\Work\Sourcing\QuoteSheet;

/**
 * Reads an answer typed into a form, by the supplier on its own page or by us for it, or brought as the filled-in file.
 *
 * @phpstan-import-type AnswerLine from QuoteAnswer
 */
final readonly class AnswerForm
{
    public function __construct(private AnswerQuote $answering, private QuoteSheet $sheet)
    {
    }

    /** Problems are left in the fields. */
    public function take(Quote $quote, Fields $fields, string $via, ?Person $typedBy = null): ?QuoteAnswer
    {
        $lines = array_values(
            array_filter(
                array_map(fn (QuoteItem $item): ?array => $this->line($item, $fields), $quote->round->items()),
            ),
        );
        $lead = $fields->text('lead_days', 20);
        if (1 !== preg_match('/^\d{1,3}$/', $lead)) {
            $fields->refuse(
                'lead_days',
                '' === $lead
                    ? 'How many days does delivery take?'
                    : sprintf('“%s” is not a number of days, such as 12.', $lead),
            );
        }
        $valid = $fields->day('valid_until', $fields->text('valid_until'));
        $charges = $fields->price('charges', $fields->text('charges'));
        $note = $fields->text('note', 1000);
        if (!$fields->isGood()) {
            return null;
        }
        try {
            return $this->answering->answer($quote, $via, (int) $lead, $valid, $charges, $note, $lines, $typedBy);
        } catch (InvalidValue|Refused $problem) {
            $fields->refuse('answer', $problem->getMessage());

            return null;
        }
    }

    public function takeFile(Quote $quote, Fields $fields, string $csv, ?Person $typedBy = null): ?QuoteAnswer
    {
        try {
            $read = $this->sheet->read($quote, $csv);

            return $this->answering->answer(
                $quote,
                QuoteAnswer::FILE,
                $read['leadDays'],
                $read['validUntil'],
                null === $read['charges'] ? null : BigDecimal::of($read['charges']),
                $read['note'],
                $read['lines'],
                $typedBy,
            );
        } catch (InvalidValue|Refused $problem) {
            $fields->refuse('file', $problem->getMessage());

            return null;
        }
    }

    /** @return AnswerLine|null null where nothing is quoted for it */
    private function line(QuoteItem $item, Fields $fields): ?array
    {
        $prices = [];
        foreach ($item->quantities() as $k => $quantity) {
            $name = sprintf('price-%d-%d', $item->id, $k);
            $price = $fields->price($name, $fields->text($name));
            if (null !== $price) {
                $prices[] = [(string) $quantity, (string) $price];
            }
        }
        $most = $fields->quantity('most-'.$item->id, $fields->text('most-'.$item->id));
        $multiple = $fields->quantity('multiple-'.$item->id, $fields->text('multiple-'.$item->id));
        if ([] === $prices) {
            if (null !== $most || null !== $multiple) {
                $fields->refuse(sprintf('price-%d-0', $item->id), 'A price is missing here.');
            }

            return null;
        }
        $fields->attempt(
            sprintf('price-%d-%d', $item->id, count($item->quantities()) - 1),
            static fn (): PriceBreaks => PriceBreaks::of($prices),
        );

        return [
            'item' => $item->id,
            'prices' => $prices,
            'most' => null === $most ? null : (string) $most,
            'multiple' => null === $multiple || !$multiple->isPositive() ? null : (string) $multiple,
            'code' => $fields->text('code-'.$item->id, 40),
            'alternate' => $fields->text('alternate-'.$item->id, 200),
        ];
    }
}
