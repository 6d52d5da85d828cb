<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Today;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\StockFigures;

/**
 * What needs a person now, most pressing first.
 *
 * @phpstan-import-type Facts from SavedProposal
 */
final class TodayList
{
    private const SHORTAGES = 4;
    private const EXPIRING = 3;
    private const UNACKNOWLEDGED_AFTER_DAYS = 2;

    /** @var array<int, list<TodayEntry>> */
    private array $known = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly UrlGeneratorInterface $urls,
        private readonly CurrentBusiness $business,
        private readonly StockFigures $stock,
        private readonly ClockInterface $clock,
    ) {
    }

    /** @return list<TodayEntry> */
    public function entries(?Site $site): array
    {
        return $this->known[$site->id ?? 0] ??= [...$this->shortages($site), ...$this->orders($site), ...$this->expiring($site)];
    }

    /** @return list<TodayEntry> items that will be gone before an order sent now could arrive */
    private function shortages(?Site $site): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        /** @var list<array{id: int, name: string, site: string, reason: string, packs: string, pack_name: string|null, pack_content: string|null, explanation: string, forecast: string, facts: string, sales_price: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT p.id, i.name, s.name site, p.reason, p.packs, o.pack_name, o.pack_content, p.explanation, p.forecast, p.facts, i.sales_price
             FROM proposal p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id LEFT JOIN offer o ON o.id = p.offer_id
             WHERE p.draft_id IS NULL AND p.reason <> 'covered' AND (? IS NULL OR p.site_id = ?)",
            [$site?->id, $site?->id],
        );
        $found = [];
        foreach ($rows as $row) {
            /** @var array{levels: array{safety: float, reorder: float, upTo: float}} $why */
            $why = json_decode($row['explanation'], true, flags: \JSON_THROW_ON_ERROR);
            /** @var array{method: string, weeks: list<float>, sigma: float, offBy: float|null} $expected */
            $expected = json_decode($row['forecast'], true, flags: \JSON_THROW_ON_ERROR);
            /** @var Facts $facts */
            $facts = json_decode($row['facts'], true, flags: \JSON_THROW_ON_ERROR);
            $forecast = new Forecast($expected['method'], array_map(floatval(...), $expected['weeks']), (float) $expected['sigma'], $expected['offBy']);
            $arrival = new \DateTimeImmutable($facts['arrival'], $today->getTimezone());
            $onDay = max(1, (int) $today->diff($arrival)->days);
            $out = Projection::over($onDay, $facts['onHand'] - $facts['promised'], OpenOrder::schedule(SavedProposal::openOrders($facts), $today), $forecast, 0.0, $onDay)->outOnDay;
            $rush = Reason::Rush->value === $row['reason'];
            if (null === $out && !$rush) {
                continue;
            }
            $out ??= $onDay;
            $atRisk = (float) $row['sales_price'] * max($forecast->over($onDay) - $forecast->over($out), $rush ? $facts['promised'] - $facts['onHand'] : 0.0);
            $pack = null === $row['pack_name'] || null === $row['pack_content'] ? null : Pack::of($row['pack_name'], $row['pack_content']);
            $found[] = [$rush ? 0 : 1, -$atRisk, new TodayEntry(
                true,
                $rush ? 'A customer is waiting' : (0 === $out ? 'Nothing left' : 'Out in '.(1 === $out ? '1 day' : $out.' days')).', next delivery possible '.$arrival->format('D j M'),
                $rush
                    ? sprintf('%s at %s: %s promised, %s there.', $row['name'], $row['site'], number_format($facts['promised']), number_format($facts['onHand']))
                    : sprintf('%s at %s.', $row['name'], $row['site']),
                $atRisk >= 1 ? Money::of(BigDecimal::of((string) round($atRisk)), $this->business->get()->currency) : null, 'of sales at risk',
                $this->urls->generate('reorder', ['why' => $row['id']]),
                null === $pack ? 'Find a supplier' : sprintf('Order %s %s', BigDecimal::of($row['packs'])->strippedOfTrailingZeros(), $pack->named($row['packs'])),
                Barrel::of($facts['onHand'], array_sum(array_column($facts['arrivals'], 1)), $why['levels']['safety'], $why['levels']['reorder'], $why['levels']['upTo']),
            )];
        }
        usort($found, static fn (array $a, array $b): int => [$a[0], $a[1]] <=> [$b[0], $b[1]]);

        return array_column(array_slice($found, 0, self::SHORTAGES), 2);
    }

    /** @return list<TodayEntry> orders that are late, unanswered or waiting for a yes */
    private function orders(?Site $site): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        /** @var list<array{number: string, supplier: string, buyer: string, state: string, due: string, sent_at: string|null, lines: int, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.number, s.name supplier, b.name buyer, o.state, COALESCE(o.promised_on, o.wanted_on) due, o.sent_at, COUNT(*) `lines`,
                    SUM(GREATEST(l.packs - l.received - l.closed_short, 0) * l.price / o.foreign_for_one) value
             FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person b ON b.id = o.buyer_id JOIN order_line l ON l.order_id = o.id
             WHERE o.state IN ('awaiting-approval', 'approved', ".Orders::openStates().')
             GROUP BY o.id, o.number, s.name, b.name, o.state, due, o.sent_at HAVING ? IS NULL OR SUM(l.site_id = ?) > 0 ORDER BY due, o.id',
            [$site?->id, $site?->id],
        );
        $urgent = $watch = [];
        foreach ($rows as $row) {
            $due = new \DateTimeImmutable($row['due'], $today->getTimezone());
            $late = $due < $today ? (int) $due->diff($today)->days : 0;
            $value = Money::of(BigDecimal::of($row['value']), $this->business->get()->currency)->rounded();
            $entry = fn (bool $isUrgent, string $title, string $words, string $action): TodayEntry => new TodayEntry(
                $isUrgent, $title, sprintf('%s, %s, %s', $row['number'], $row['supplier'], $words), $value, 'ordered',
                $this->urls->generate('order', ['number' => $row['number']]), $action,
            );
            $days = 1 === $late ? '1 day' : $late.' days';
            if ('awaiting-approval' === $row['state']) {
                $watch[] = $entry(false, 'Waiting for a yes', sprintf('%d lines, drafted by %s, over their limit.', $row['lines'], explode(' ', $row['buyer'])[0]), 'Look and decide');
            } elseif ('approved' === $row['state']) {
                $watch[] = $entry(false, 'Approved, not sent', 'ready to go out.', 'Look and send');
            } elseif ($late > OpenOrder::FORGOTTEN_AFTER_DAYS) {
                $urgent[] = $entry(true, sprintf('%s late, forgotten?', $days), sprintf('due %s; planning no longer counts on it.', $due->format('D j M')), 'Settle it');
            } elseif ($late > 0) {
                $urgent[] = $entry(true, $days.' late', sprintf('%d lines, due %s.', $row['lines'], $due->format('D j M')), 'Look into it');
            } elseif ('sent' === $row['state'] && null !== $row['sent_at'] && (new \DateTimeImmutable($row['sent_at']))->modify('+'.self::UNACKNOWLEDGED_AFTER_DAYS.' days') < $this->clock->now()) {
                $watch[] = $entry(false, sprintf('Sent %s, not acknowledged', (new \DateTimeImmutable($row['sent_at']))->format('l')), 'wanted '.$due->format('D j M').'.', 'Enter their date');
            }
        }

        return [...$urgent, ...$watch];
    }

    /** @return list<TodayEntry> lots that will not sell before they expire */
    private function expiring(?Site $site): array
    {
        $entries = [];
        foreach (array_slice($this->stock->lotsAtRisk($this->clock->now(), $site?->id), 0, self::EXPIRING) as $lot) {
            $entries[] = new TodayEntry(
                false, $lot['days'] < 0 ? 'Expired and still on the shelf' : 'Expires before it sells',
                sprintf('%s at %s, lot %s, use by %s: %s of %s %s will be left.', $lot['name'], $lot['site'], $lot['lot'], (new \DateTimeImmutable($lot['expires']))->format('j M'), number_format($lot['left']), number_format($lot['held']), $lot['unit']),
                Money::of(BigDecimal::of(number_format($lot['value'], 2, '.', '')), $this->business->get()->currency), 'at cost',
                $this->urls->generate('item', ['code' => $lot['code']]), 'See the item',
            );
        }

        return $entries;
    }
}
