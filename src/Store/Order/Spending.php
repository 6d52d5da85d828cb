<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Supplier\AgreedTerms;

/** What has been ordered, in the home currency. */
final readonly class Spending
{
    /** The last price paid for one pack of offer o, for a query over offers; null where none has been bought. */
    public const LAST_PAID = "(SELECT paid.price FROM order_line paid JOIN purchase_order p2 ON p2.id = paid.order_id
        WHERE paid.offer_id = o.id AND p2.sent_at IS NOT NULL AND p2.state <> 'cancelled'
        ORDER BY p2.sent_at DESC, paid.id DESC LIMIT 1)";

    public function __construct(
        private Connection $connection,
        private CurrentBusiness $business,
        private Budgets $budgets,
    ) {
    }

    /**
     * What is still to be paid for and what was bought, for Today: three figures of one trip.
     *
     * @param \DateTimeImmutable $since the day from which on what was received counts as bought
     */
    public function overview(\DateTimeImmutable $today, \DateTimeImmutable $since, int $most): SpendingOverview
    {
        $trip = (new OneTrip())
            ->ask(
                'due',
                ['terms', 'value'],
                'order_id',
                'SELECT l.order_id, CONVERT(JSON_ARRAY(l.due, DATE(o.sent_at), '.AgreedTerms::COLUMNS.') USING utf8mb4)
                    terms, SUM(l.home_value * (1 + o.tax_percent / 100)) value
                 FROM open_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
                 GROUP BY l.order_id, terms',
            )
            ->ask(
                'bought',
                ['name', 'value'],
                'value DESC, id',
                'SELECT s.id, s.name, SUM(rl.packs * ol.pack_content * rl.unit_cost) value
                 FROM receipt r JOIN receipt_line rl ON rl.receipt_id = r.id JOIN order_line ol ON ol.id = rl.line_id
                 JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
                 WHERE r.day >= ? GROUP BY s.id, s.name ORDER BY value DESC, s.id LIMIT '.$most,
                [$since->format('Y-m-d')],
            );
        $this->budgets->ask($trip, $today);
        $answers = $trip->answers($this->connection);
        $due = [];
        foreach ($answers['due'] as $row) {
            foreach ($this->payments((string) $row['terms'], (string) $row['value'], $today) as $monday => $amount) {
                $due[$monday] = ($due[$monday] ?? 0.0) + $amount;
            }
        }
        ksort($due);
        $bought = [];
        foreach ($answers['bought'] as $row) {
            $bought[(string) $row['name']] = (float) $row['value'];
        }

        return new SpendingOverview(
            $due,
            $bought,
            $this->budgets->use($today->format('Y-m'), Budgets::in($answers), $today),
        );
    }

    /**
     * What an order's outstanding lines will cost, when. Where no terms are known, when it comes. A deposit was paid
     * when
     * it was ordered; what is late falls due this week.
     *
     * @param string $facts day it is due, day it was sent, and the supplier's terms, as JSON
     *
     * @return array<string, float> by the Monday of the week
     */
    private function payments(string $facts, string $value, \DateTimeImmutable $today): array
    {
        /** @var array{string, string, int|null, string, int, int, string, string} $facts */
        $facts = json_decode($facts, true);
        [$due, $sent] = $facts;
        $business = $this->business->get();
        $total = Money::of(BigDecimal::of($value), $business->currency)->rounded();
        $invoiced = max(new \DateTimeImmutable($due, $today->getTimezone()), $today->setTime(0, 0));
        $terms = AgreedTerms::read(array_slice($facts, 2)) ?? PaymentTerms::net(0);
        $weeks = [];
        $ordered = new \DateTimeImmutable($sent, $today->getTimezone());
        foreach ($terms->payments($total, $ordered, $invoiced, $business->moneyPercent()->toFloat()) as $payment) {
            if ($payment->day >= $today->setTime(0, 0)) {
                $monday = $payment->day->modify('monday this week')->format('Y-m-d');
                $weeks[$monday] = ($weeks[$monday] ?? 0.0) + $payment->amount->amount->toFloat();
            }
        }

        return $weeks;
    }

    /**
     * @param list<int> $offers
     *
     * @return array<int, BigDecimal> last price paid for one pack, by offer, where any was
     */
    public function lastPrices(array $offers): array
    {
        $trip = new OneTrip();
        self::askLastPrices($trip, $offers);

        return self::lastPricesIn($trip->answers($this->connection));
    }

    /**
     * What was paid for them last, asked along with other things: see lastPricesIn().
     *
     * @param list<int> $offers
     */
    public static function askLastPrices(OneTrip $trip, array $offers): void
    {
        $trip->ask(
            'paid',
            ['offer', 'price'],
            'offer',
            'SELECT o.id offer, '.self::LAST_PAID.' price FROM offer o WHERE o.id IN (0'.
                str_repeat(', ?', count($offers)).')',
            $offers,
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array<int, BigDecimal> last price paid for one pack, by offer, where any was
     */
    public static function lastPricesIn(array $answers): array
    {
        $paid = [];
        foreach ($answers['paid'] as $row) {
            if (null !== $row['price']) {
                $paid[(int) $row['offer']] = BigDecimal::of($row['price']);
            }
        }

        return $paid;
    }
}
