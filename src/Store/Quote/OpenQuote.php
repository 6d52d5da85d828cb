<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\OneTrip;

/**
 * What one supplier was asked for an item in a round that is out, and says so far.
 *
 * @phpstan-import-type AnswerLine from QuoteAnswer
 */
final readonly class OpenQuote
{
    /**
     * @param string           $round    number
     * @param string           $currency of the supplier
     * @param PriceBreaks|null $prices   of one stock unit; null where nothing is quoted for it
     * @param int|null         $leadDays null where no answer stands
     */
    private function __construct(
        public string $round,
        public \DateTimeImmutable $replyBy,
        public string $supplier,
        public string $currency,
        public QuoteState $state,
        public ?\DateTimeImmutable $askedAt,
        public ?PriceBreaks $prices,
        public ?int $leadDays,
    ) {
    }

    /** All of an item, asked along with other things: see in(). The answer that stands is the last, if one does. */
    public static function ask(OneTrip $trip, Item $item): void
    {
        $trip->ask(
            'quotes',
            ['item', 'number', 'reply_by', 'name', 'currency', 'state', 'asked_at', 'quoted', 'lead_days'],
            'round DESC, quote',
            "SELECT i.id item, r.id round, q.id quote, r.number, r.reply_by, s.name, s.currency, q.state, q.asked_at,
                a.quoted, a.lead_days
             FROM quote_item i JOIN quote_round r ON r.id = i.round_id JOIN quote q ON q.round_id = r.id
             JOIN supplier s ON s.id = q.supplier_id
             LEFT JOIN quote_answer a ON a.quote_id = q.id AND q.state NOT IN ('asked', 'declined')
                AND a.revision = (SELECT MAX(last.revision) FROM quote_answer last WHERE last.quote_id = q.id)
             WHERE i.item_id = ? AND r.sent_at IS NOT NULL AND r.settled_at IS NULL",
            [$item->id],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<self> the latest round first
     */
    public static function in(array $answers): array
    {
        $quotes = [];
        foreach ($answers['quotes'] as $row) {
            /** @var list<AnswerLine> $lines */
            $lines = json_decode($row['quoted'] ?? '[]', true, flags: \JSON_THROW_ON_ERROR);
            $quotes[] = new self(
                (string) $row['number'],
                new \DateTimeImmutable((string) $row['reply_by']),
                (string) $row['name'],
                (string) $row['currency'],
                QuoteState::from((string) $row['state']),
                null === $row['asked_at'] ? null : new \DateTimeImmutable($row['asked_at']),
                QuoteAnswer::pricesIn($lines, (int) $row['item']),
                null === $row['lead_days'] ? null : (int) $row['lead_days'],
            );
        }

        return $quotes;
    }
}
