<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Today;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Shell\Format;
use TallBarrel\Desk\Talk\Talk;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\WaitingCounts;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\StockFigures;
use TallBarrel\Store\Talk\QuestionState;
use TallBarrel\Work\Keeping\Condition;

/**
 * What needs a person now, most pressing first.
 */
final class TodayList
{
    /** Shortages with an entry of their own, and those named in the one for all others. */
    private const SHORTAGES = 4;
    private const NAMED_TOO = 5;
    private const EXPIRING = 3;
    private const NOT_NEEDED = 2;
    private const WRONG = 2;
    /** Stock that lasts so long needs no more coming (common practice, no source). */
    private const MORE_THAN_ENOUGH_DAYS = 90;
    private const UNACKNOWLEDGED_AFTER_DAYS = 2;

    /** @var array<int, list<TodayEntry>> */
    private array $known = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly UrlGeneratorInterface $urls,
        private readonly CurrentBusiness $business,
        private readonly Sites $sites,
        private readonly ClockInterface $clock,
        private readonly Agreements $agreements,
        private readonly WaitingCounts $waiting,
        private readonly Talk $subjects,
        private readonly Condition $condition,
    ) {
    }

    /** @return list<TodayEntry> */
    public function entries(?Site $site): array
    {
        return $this->known[$site->id ?? 0] ??= $this->read($site);
    }

    /** @return list<TodayEntry> with what waits for this person's word */
    public function entriesFor(?Site $site, Person $person): array
    {
        return $this->read($site, $person);
    }

    /** @return list<TodayEntry> */
    private function read(?Site $site, ?Person $person = null): array
    {
        $found = $this->found($site, $person);

        $entries = [
            ...$this->machine($person),
            ...$this->stopped($site),
            ...$this->shortages($found['shortages']),
            ...$this->unknown($found['unknown']),
            ...$this->transfers($found['transfers'][0] ?? []),
            ...$this->answers($found['answers'], $found['revisions']),
            ...$this->talk($found['talk']),
            ...$this->reminders($found['reminders']),
            ...$this->requisitions($found['requisitions']),
            ...$this->orders($found['orders']),
            ...$this->notNeeded($found['not needed']),
            ...$this->sourcing($found['rounds'], $found['price lists']),
            ...$this->differingInvoices($found['invoices']),
            ...$this->expiring(StockFigures::lotsAtRiskIn($found)),
            ...$this->wrongForecasts($found['wrong forecasts']),
        ];

        // What is for today comes first, each part in its own order.
        return [
            ...array_filter($entries, static fn (TodayEntry $entry): bool => $entry->urgent),
            ...array_filter($entries, static fn (TodayEntry $entry): bool => !$entry->urgent),
        ];
    }

    /** @return array<string, list<array<string, string|null>>> */
    private function found(?Site $site, ?Person $person): array
    {
        $here = [$site?->id, $site?->id];
        $today = $this->clock->now()->format('Y-m-d');
        $trip = new OneTrip();
        StockFigures::askLotsAtRisk($trip, $this->clock->now(), $site?->id);

        return $trip
            ->ask(
                'orders',
                ['number', 'supplier', 'buyer', 'asked', 'state', 'due', 'counted_on', 'sent_at', 'lines', 'value'],
                'due, id',
                "SELECT o.id, o.number, s.name supplier, b.name buyer, MAX(COALESCE(t.name, a.name)) asked, o.state,
                    COALESCE(o.promised_on, o.wanted_on) due, o.counted_on, o.sent_at, COUNT(*) `lines`,
                    COALESCE(SUM(open.home_value), SUM(l.packs * l.price / o.foreign_for_one)) value
                 FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person b ON b.id = o.buyer_id
                 LEFT JOIN person a ON a.id = b.approver_id AND a.blocked_at IS NULL
                 LEFT JOIN person t ON t.id = a.stand_in_id AND a.stand_in_until >= ?
                 JOIN order_line l ON l.order_id = o.id
                 LEFT JOIN open_line open ON open.id = l.id
                 WHERE o.state IN ('awaiting-approval', 'approved', ".
                    Orders::openStates().
                    ')
                 GROUP BY o.id, o.number, s.name, b.name, o.state, o.promised_on, o.wanted_on, o.counted_on, o.sent_at
                 HAVING ? IS NULL OR SUM(l.site_id = ?) > 0',
                [$today, ...$here],
            )
            ->ask(
                'unknown',
                ['site', 'at', 'what', 'waiting'],
                'at',
                "SELECT s.name site, u.at, u.what, COUNT(*) OVER () waiting FROM unknown_delivery u
                 JOIN site s ON s.id = u.site_id WHERE u.state = 'waiting' AND (? IS NULL OR u.site_id = ?)
                 ORDER BY u.at, u.id LIMIT 1",
                $here,
            )
            ->ask(
                'transfers',
                ['picks', 'due'],
                'picks',
                "SELECT SUM(state = 'to-pick' AND (? IS NULL OR source_id = ?)) picks,
                    SUM(state = 'under-way' AND due_on <= ? AND (? IS NULL OR target_id = ?)) due
                 FROM transfer WHERE state IN ('to-pick', 'under-way')",
                [...$here, $today, ...$here],
            )
            ->ask('invoices', ['id', 'number', 'supplier', 'currency', 'more'], 'more DESC, id', Invoices::DIFFERING)
            ->ask(
                'shortages',
                ['id', 'name', 'site', 'reason', 'packs', 'pack_name', 'pack_content', 'out_in_days', 'sales_at_risk',
                    'moves', 'on_hand', 'promised', 'coming', 'safety_stock', 'reorder_point', 'order_up_to', 'arrival',
                    'short', 'short_at_risk'],
                "reason = 'rush' DESC, sales_at_risk DESC, id",
                "SELECT p.id, i.name, s.name site, p.reason, p.packs, o.pack_name, o.pack_content, p.out_in_days,
                    p.sales_at_risk, p.moves, p.on_hand, p.promised, p.coming, p.safety_stock, p.reorder_point,
                    p.order_up_to, p.arrival, COUNT(*) OVER () short, SUM(p.sales_at_risk) OVER () short_at_risk
                 FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                 LEFT JOIN offer o ON o.id = p.offer_id
                 WHERE p.draft_id IS NULL AND p.out_in_days IS NOT NULL AND (? IS NULL OR p.site_id = ?)
                 ORDER BY p.reason = 'rush' DESC, p.sales_at_risk DESC, p.id LIMIT ".
                    (self::SHORTAGES + self::NAMED_TOO),
                $here,
            )
            ->ask(
                'not needed',
                ['name', 'site', 'cover', 'coming', 'cost', 'number'],
                'coming * cost DESC, number',
                'SELECT i.name, s.name site, p.cover_days cover, SUM(l.units) coming,
                    COALESCE(MAX(i.average_cost), MAX(i.standard_cost), 0) cost, MIN(l.number) number
                 FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                 JOIN open_line l ON l.item_id = p.item_id AND l.site_id = p.site_id
                 WHERE p.cover_days > ? AND p.on_hand > p.order_up_to AND (? IS NULL OR p.site_id = ?)
                 GROUP BY p.id, i.name, s.name, p.cover_days
                 ORDER BY SUM(l.units) * COALESCE(MAX(i.average_cost), MAX(i.standard_cost), 0) DESC, p.id LIMIT '.
                    self::NOT_NEEDED,
                [self::MORE_THAN_ENOUGH_DAYS, ...$here],
            )
            ->ask(
                'rounds',
                ['number', 'reply_by', 'asked', 'silent', 'answered'],
                'reply_by, number',
                "SELECT r.number, r.reply_by, COUNT(*) asked, SUM(q.state = 'asked') silent,
                    SUM(q.state = 'answered') answered FROM quote_round r JOIN quote q ON q.round_id = r.id
                 WHERE r.sent_at IS NOT NULL AND r.settled_at IS NULL GROUP BY r.id, r.number, r.reply_by
                 HAVING r.reply_by <= ? OR silent = 0",
                [$this->clock->now()->modify('+1 day')->format('Y-m-d')],
            )
            ->ask(
                'price lists',
                ['id', 'code', 'name', 'filename', 'striking'],
                'id',
                "SELECT p.id, s.code, s.name, p.filename, (SELECT COUNT(*) FROM price_list_row r
                    WHERE r.list_id = p.id AND r.move = 'striking') striking FROM price_list p
                 JOIN supplier s ON s.id = p.supplier_id WHERE p.state = 'read'",
            )
            ->ask(
                'answers',
                ['number', 'supplier', 'message', 'value'],
                'number',
                "SELECT o.number, s.name supplier, a.message,
                    (SELECT SUM(l.packs * l.price) / o.foreign_for_one FROM order_line l WHERE l.order_id = o.id) value
                 FROM order_answer a JOIN purchase_order o ON o.id = a.order_id
                 JOIN supplier s ON s.id = o.supplier_id WHERE a.state = 'waiting' AND a.revision = o.revision",
            )
            ->ask(
                'revisions',
                ['number', 'supplier', 'by_name', 'revision'],
                'number',
                'SELECT o.number, s.name supplier, p.name by_name, o.revision + 1 revision FROM order_amendment m
                 JOIN purchase_order o ON o.id = m.order_id JOIN supplier s ON s.id = o.supplier_id
                 JOIN person p ON p.id = m.by_id WHERE m.waiting = 1',
            )
            ->ask(
                'talk',
                ['id', 'subject', 'words', 'asks', 'answers', 'state'],
                'id',
                "SELECT t.id, t.subject, LEFT(t.words, 200) words, b.name asks, p.name answers, t.state
                 FROM talk_line t JOIN person b ON b.id = t.by_id JOIN person p ON p.id = t.to_id
                 WHERE (t.state = 'open' AND t.to_id = ?) OR (t.state = 'answered' AND t.by_id = ?)",
                [$person?->id, $person?->id],
            )
            ->ask(
                'reminders',
                ['number', 'supplier', 'words', 'day'],
                'day, number',
                'SELECT o.number, s.name supplier, o.reminder words, o.remind_on day FROM purchase_order o
                 JOIN supplier s ON s.id = o.supplier_id WHERE o.remind_on <= ?',
                [$today],
            )
            ->ask(
                'requisitions',
                ['words', 'by_name', 'quantity', 'waiting'],
                'wanted, words',
                "SELECT r.words, p.name by_name, r.quantity + 0e0 quantity, COALESCE(r.wanted_on, '9999-12-31') wanted,
                    COUNT(*) OVER () waiting FROM requisition r JOIN person p ON p.id = r.by_id
                 WHERE r.state = 'asked' ORDER BY wanted, words LIMIT 1",
            )
            ->ask(
                'wrong forecasts',
                ['code', 'name', 'site', 'site_code', 'bias', 'value'],
                'value DESC, code',
                'SELECT i.code, i.name, s.name site, s.code site_code, p.bias, p.leaning value
                 FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                 WHERE p.leaning IS NOT NULL AND (? IS NULL OR p.site_id = ?) ORDER BY p.leaning DESC LIMIT '.
                    self::WRONG,
                $here,
            )
            ->answers($this->connection);
    }

    /** @return list<TodayEntry> what is wrong with the machine all this runs on, for whoever owns it */
    private function machine(?Person $person): array
    {
        $wrong = true === $person?->mayApprove()
            ? $this->condition->toTell(true === $this->business->find()?->isDemo())
            : [];

        return [] === $wrong ? [] : [
            new TodayEntry(
                true,
                'The machine needs somebody',
                ucfirst(implode('; ', $wrong)).'.',
                null,
                '',
                $this->urls->generate('stopped_work'),
                'Look',
            ),
        ];
    }

    /** @return list<TodayEntry> work that the workers gave up */
    private function stopped(?Site $site): array
    {
        $count = $this->waiting->at($site)->stopped;
        $words =
            1 === $count
                ? 'One piece of work was tried several times without success.'
                : $count.' pieces of work were tried several times without success.';

        return 0 === $count
            ? []
            : [
                new TodayEntry(
                    true,
                    'Work has stopped',
                    $words,
                    null,
                    '',
                    $this->urls->generate('stopped_work'),
                    'Decide',
                ),
            ];
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> what stands at a dock and nobody can place
     */
    private function unknown(array $rows): array
    {
        return array_map(
            fn (array $first): TodayEntry => new TodayEntry(
                false,
                'Nobody knows what it is',
                sprintf(
                    'At %s since %s: %s%s',
                    $first['site'],
                    (new \DateTimeImmutable((string) $first['at']))->format('D j M'),
                    $first['what'],
                    '1' === $first['waiting'] ? '.' : sprintf(', and %d more.', (int) $first['waiting'] - 1),
                ),
                null,
                '',
                $this->urls->generate('unknown'),
                'Place it',
            ),
            $rows,
        );
    }

    /**
     * @param array<string, string|null> $counts
     *
     * @return list<TodayEntry> what another site waits for, and what should be here by now
     */
    private function transfers(array $counts): array
    {
        [$picks, $due] = [(int) ($counts['picks'] ?? 0), (int) ($counts['due'] ?? 0)];
        $say = static fn (int $many, string $one, string $several): string => 1 === $many
            ? $one : sprintf($several, $many);
        $entries = [];
        foreach (
            [
                [$picks, $say($picks, 'Another site asks for goods.', '%d lists of goods for other sites.'), 'Pick'],
                [$due, $say($due, 'One that another site sent.', '%d that other sites sent.'), 'Count'],
            ] as [$many, $words, $act]
        ) {
            if ($many > 0) {
                $entries[] = new TodayEntry(
                    false,
                    'Pick' === $act ? 'To be picked' : 'Should be here from another site',
                    $words,
                    null,
                    '',
                    $this->urls->generate('transfers'),
                    $act,
                );
            }
        }

        return $entries;
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> invoices about which somebody has to decide
     */
    private function differingInvoices(array $rows): array
    {
        $entries = [];
        foreach ($rows as $row) {
            $entries[] = new TodayEntry(
                false,
                'Invoice differs',
                sprintf(
                    '%s of %s asks for more than came or was agreed.',
                    $row['number'],
                    $row['supplier'],
                ),
                Money::of(
                    BigDecimal::of((string) $row['more'])->toScale(0, RoundingMode::HalfUp),
                    (string) $row['currency'],
                ),
                'more',
                $this->urls->generate('settle_invoice', ['id' => $row['id']]),
                'Decide',
            );
        }

        return $entries;
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> items that will be gone before an order sent now could arrive; the worst by name
     */
    private function shortages(array $rows): array
    {
        $named = array_map(function (array $row): TodayEntry {
            /** @var list<array{site: int, units: float}> $moves */
            $moves = json_decode((string) $row['moves'], true, flags: \JSON_THROW_ON_ERROR);
            $rush = Reason::Rush->value === $row['reason'];
            $out = (int) $row['out_in_days'];
            $arrival = new \DateTimeImmutable((string) $row['arrival']);
            $atRisk = round((float) $row['sales_at_risk']);
            $helper = [] === $moves ? null : $this->sites->find($moves[0]['site']);
            $pack =
                null === $row['pack_name'] || null === $row['pack_content']
                    ? null
                    : Pack::of($row['pack_name'], $row['pack_content']);

            return new TodayEntry(
                true,
                $rush
                    ? 'A customer is waiting'
                    : (0 === $out ? 'Nothing left' : 'Out in '.(1 === $out ? '1 day' : $out.' days')).
                        ', next delivery possible '.
                        $arrival->format('D j M'),
                $rush
                    ? sprintf(
                        '%s at %s: %s promised, %s there.',
                        $row['name'],
                        $row['site'],
                        Format::number((float) $row['promised']),
                        Format::number((float) $row['on_hand']),
                    )
                    : sprintf('%s at %s.', $row['name'], $row['site']),
                $atRisk >= 1 ? Money::of((string) $atRisk, $this->business->get()->currency) : null,
                'of sales at risk',
                $this->urls->generate('reorder', ['why' => $row['id']]),
                null !== $helper
                    ? sprintf('Move %s from %s', Format::number($moves[0]['units']), $helper->name())
                    : (null === $pack
                        ? 'Find a supplier'
                        : sprintf(
                            'Order %s %s',
                            BigDecimal::of((string) $row['packs'])->strippedOfTrailingZeros(),
                            $pack->named((string) $row['packs']),
                        )),
                Barrel::of(
                    (float) $row['on_hand'],
                    (float) $row['coming'],
                    (float) $row['safety_stock'],
                    (float) $row['reorder_point'],
                    (float) $row['order_up_to'],
                ),
            );
        }, array_slice($rows, 0, self::SHORTAGES));
        $more = (int) ($rows[0]['short'] ?? 0) - count($named);
        if ($more <= 0) {
            return $named;
        }
        $atRisk = round((float) ($rows[0]['short_at_risk'] ?? 0) - array_sum(
            array_map(floatval(...), array_column(array_slice($rows, 0, self::SHORTAGES), 'sales_at_risk')),
        ));
        $names = array_column(array_slice($rows, self::SHORTAGES), 'name');

        return [...$named, new TodayEntry(
            true,
            sprintf('%d more will run out before a delivery', $more),
            implode(', ', $names).($more > count($names) ? ' and others.' : '.'),
            $atRisk >= 1
                ? Money::of(BigDecimal::of((string) $atRisk), $this->business->get()->currency)
                : null,
            'of sales at risk',
            $this->urls->generate('reorder', ['q' => Board::RUNS_OUT]),
            'See them',
        )];
    }

    /**
     * @param list<array<string, string|null>> $rounds
     * @param list<array<string, string|null>> $lists
     *
     * @return list<TodayEntry> quote rounds to award or to remind, price lists brought and agreements that go astray
     */
    private function sourcing(array $rounds, array $lists): array
    {
        $today = $this->clock->now()->format('Y-m-d');
        $entries = array_map(
            fn (array $row): TodayEntry => new TodayEntry(
                false,
                0 === (int) $row['silent'] || $row['reply_by'] < $today ? 'Quotes to award' : 'Quotes due',
                sprintf(
                    '%s: %d of %d answered, reply by %s.',
                    $row['number'],
                    (int) $row['answered'],
                    (int) $row['asked'],
                    (new \DateTimeImmutable((string) $row['reply_by']))->format('D j M'),
                ),
                null,
                '',
                $this->urls->generate('round', ['number' => $row['number']]),
                0 === (int) $row['silent'] || $row['reply_by'] < $today ? 'Award it' : 'Remind them',
            ),
            $rounds,
        );
        foreach ($lists as $list) {
            $entries[] = new TodayEntry(
                false,
                'Price list not applied yet',
                sprintf(
                    '%s, %s: %s.',
                    $list['name'],
                    $list['filename'],
                    0 === (int) $list['striking'] ? 'nothing striking' : (int) $list['striking'].' striking',
                ),
                null,
                '',
                $this->urls->generate('price_list', ['code' => $list['code'], 'id' => $list['id']]),
                'Look it through',
            );
        }
        $drawn = null;
        foreach ($this->agreements->all() as $agreement) {
            if ($agreement->isInForce($this->clock->now())) {
                $drawn ??= $this->agreements->drawn();
                $pace = $agreement->pace($drawn[$agreement->id]['drawn'], $this->clock->now());
                if ($pace->state->isWorthALook()) {
                    $entries[] = new TodayEntry(
                        false,
                        'Agreement '.$pace->state->value,
                        sprintf(
                            '%s, %s: %s of %s %s drawn by now.',
                            $agreement->supplier->name(),
                            $agreement->subject(),
                            Format::number($pace->drawn),
                            Format::number($pace->promised),
                            $agreement->unit(),
                        ),
                        null,
                        '',
                        $this->urls->generate('agreement', ['number' => $agreement->number]),
                        'Look at it',
                    );
                }
            }
        }

        return $entries;
    }

    /**
     * @param list<array<string, string|null>> $answers
     * @param list<array<string, string|null>> $revisions
     *
     * @return list<TodayEntry> what suppliers answered otherwise than ordered, and revisions that wait for a yes
     */
    private function answers(array $answers, array $revisions): array
    {
        return [
            ...array_map(
                fn (array $row): TodayEntry => new TodayEntry(
                    true,
                    'Answered otherwise than ordered',
                    sprintf(
                        '%s, %s%s',
                        $row['number'],
                        $row['supplier'],
                        '' === $row['message'] ? '.' : ': “'.mb_strimwidth((string) $row['message'], 0, 80, '…').'”',
                    ),
                    Money::of(BigDecimal::of($row['value'] ?? '0'), $this->business->get()->currency)->rounded(),
                    'ordered',
                    $this->urls->generate('order', ['number' => $row['number']]),
                    'Agree or not',
                ),
                $answers,
            ),
            ...array_map(
                fn (array $row): TodayEntry => new TodayEntry(
                    false,
                    'A revision awaits approval',
                    sprintf(
                        '%s, %s, revision %s, prepared by %s.',
                        $row['number'],
                        $row['supplier'],
                        $row['revision'],
                        explode(' ', (string) $row['by_name'])[0],
                    ),
                    null,
                    '',
                    $this->urls->generate('order_amend', ['number' => $row['number']]),
                    'Look and decide',
                ),
                $revisions,
            ),
        ];
    }

    /**
     * @param list<array<string, string|null>> $talk
     *
     * @return list<TodayEntry> what a colleague asks, and answers that came
     */
    private function talk(array $talk): array
    {
        return array_map(function (array $row): TodayEntry {
            $first = static fn (?string $name): string => explode(' ', (string) $name)[0];
            $subject = (string) $row['subject'];
            $open = QuestionState::Open->value === $row['state'];

            return new TodayEntry(
                false,
                $open ? $first($row['asks']).' asks you' : $first($row['answers']).' has answered you',
                sprintf(
                    '%s: “%s”',
                    Talk::parts($subject)[1],
                    mb_strimwidth((string) preg_replace('/\s+/', ' ', (string) $row['words']), 0, 110, '…'),
                ),
                null,
                '',
                $this->subjects->path($subject).'#talk',
                $open ? 'Answer' : 'Read it',
            );
        }, $talk);
    }

    /**
     * @param list<array<string, string|null>> $reminders
     *
     * @return list<TodayEntry> what somebody wanted to be thought of on an order
     */
    private function reminders(array $reminders): array
    {
        return array_map(
            fn (array $row): TodayEntry => new TodayEntry(
                false,
                'To think of',
                sprintf('%s, %s: %s', $row['number'], $row['supplier'], $row['words']),
                null,
                '',
                $this->urls->generate('order', ['number' => $row['number']]),
                'See the order',
            ),
            $reminders,
        );
    }

    /**
     * @param list<array<string, string|null>> $first the one wanted soonest, and how many there are
     *
     * @return list<TodayEntry> what colleagues ask for
     */
    private function requisitions(array $first): array
    {
        return array_map(
            fn (array $row): TodayEntry => new TodayEntry(
                false,
                '1' === $row['waiting'] ? 'A requisition' : $row['waiting'].' requisitions',
                sprintf(
                    '%s asks for %s %s%s.',
                    explode(' ', (string) $row['by_name'])[0],
                    $row['quantity'],
                    $row['words'],
                    '1' === $row['waiting'] ? '' : ', among others',
                ),
                null,
                '',
                $this->urls->generate('requisitions'),
                'Decide',
            ),
            $first,
        );
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> orders that are late, unanswered or awaiting approval
     */
    private function orders(array $rows): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $urgent = $watch = [];
        foreach ($rows as $row) {
            $due = new \DateTimeImmutable((string) $row['due'], $today->getTimezone());
            $verdict = null === $row['counted_on'] ? null : '1' === $row['counted_on'];
            $open = new OpenOrder((string) $row['number'], BigDecimal::zero(), $due, $verdict);
            $late = $open->daysLate($today);
            $value = Money::of(BigDecimal::of($row['value'] ?? 0), $this->business->get()->currency)->rounded();
            $entry = fn (bool $isUrgent, string $title, string $words, string $action): TodayEntry => new TodayEntry(
                $isUrgent,
                $title,
                sprintf('%s, %s, %s', $row['number'], $row['supplier'], $words),
                $value,
                'ordered',
                $this->urls->generate('order', ['number' => $row['number']]),
                $action,
            );
            $days = 1 === $late ? '1 day' : $late.' days';
            if ('awaiting-approval' === $row['state']) {
                $watch[] = $entry(
                    false,
                    'Awaiting approval',
                    sprintf(
                        '%d lines, drafted by %s, over their limit%s.',
                        (int) $row['lines'],
                        explode(' ', (string) $row['buyer'])[0],
                        null === $row['asked'] ? '' : '; waits for '.explode(' ', $row['asked'])[0],
                    ),
                    'Look and decide',
                );
            } elseif ('approved' === $row['state']) {
                $watch[] = $entry(false, 'Approved, not sent', 'ready to go out.', 'Look and send');
            } elseif ($late > 0 && !$open->countsOn($today)) {
                $urgent[] = $entry(
                    true,
                    sprintf(false === $verdict ? '%s late, not counted on' : '%s late, forgotten?', $days),
                    sprintf('due %s; planning no longer counts on it.', $due->format('D j M')),
                    'Decide',
                );
            } elseif ($late > 0) {
                $urgent[] = $entry(
                    true,
                    $days.' late',
                    sprintf('%d lines, due %s.', (int) $row['lines'], $due->format('D j M')),
                    'Look into it',
                );
            } elseif (
                'sent' === $row['state']
                && null !== $row['sent_at']
                && (new \DateTimeImmutable($row['sent_at']))->modify('+'.self::UNACKNOWLEDGED_AFTER_DAYS.' days') <
                    $this->clock->now()
            ) {
                $watch[] = $entry(
                    false,
                    sprintf('Sent %s, not acknowledged', (new \DateTimeImmutable($row['sent_at']))->format('l')),
                    'wanted '.$due->format('D j M').'.',
                    'Enter their date',
                );
            }
        }

        return [...$urgent, ...$watch];
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> open orders that are to come although there is more than enough
     */
    private function notNeeded(array $rows): array
    {
        return array_map(
            fn (array $row): TodayEntry => new TodayEntry(
                false,
                sprintf('%s brings what is not needed now', $row['number']),
                sprintf(
                    '%s at %s lasts %d days; %s more are to come.',
                    $row['name'],
                    $row['site'],
                    (int) $row['cover'],
                    Format::number((float) $row['coming']),
                ),
                Money::of(
                    number_format((float) $row['coming'] * (float) $row['cost'], 2, '.', ''),
                    $this->business->get()->currency,
                ),
                'could wait',
                $this->urls->generate('order', ['number' => $row['number']]),
                'Look at the order',
            ),
            $rows,
        );
    }

    /**
     * @param list<array<string, string|null>> $rows
     *
     * @return list<TodayEntry> items whose forecast has leaned one way for a while, the most money first
     */
    private function wrongForecasts(array $rows): array
    {
        return array_map(
            fn (array $row): TodayEntry => new TodayEntry(
                false,
                (float) $row['bias'] > 0 ? 'Forecast has been too high' : 'Forecast has been too low',
                sprintf(
                    '%s at %s, by %d %% over the last months.',
                    $row['name'],
                    $row['site'],
                    (int) abs(round(100 * (float) $row['bias'])),
                ),
                Money::of(number_format((float) $row['value'], 2, '.', ''), $this->business->get()->currency),
                'a week astray',
                $this->urls->generate('item', ['code' => $row['code'], 'site' => $row['site_code']]),
                'See the history',
            ),
            $rows,
        );
    }

    /**
     * @param list<array{code: string, name: string, site: string, lot: string, expires: string, held: float,
     *      left: float, value: float, unit: string, days: int}> $lots
     *
     * @return list<TodayEntry> lots that will not sell before they expire
     */
    private function expiring(array $lots): array
    {
        $entries = [];
        foreach (array_slice($lots, 0, self::EXPIRING) as $lot) {
            $entries[] = new TodayEntry(
                false,
                $lot['days'] < 0 ? 'Expired and still on the shelf' : 'Expires before it sells',
                sprintf(
                    '%s at %s, lot %s, use by %s: %s of %s %s will be left.',
                    $lot['name'],
                    $lot['site'],
                    $lot['lot'],
                    (new \DateTimeImmutable($lot['expires']))->format('j M'),
                    Format::number($lot['left']),
                    Format::number($lot['held']),
                    $lot['unit'],
                ),
                Money::of(BigDecimal::of(number_format($lot['value'], 2, '.', '')), $this->business->get()->currency),
                'at cost',
                $this->urls->generate('item_lot', ['code' => $lot['code'], 'number' => $lot['lot']]),
                'Settle it',
            );
        }

        return $entries;
    }
}
