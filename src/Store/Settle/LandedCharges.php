<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Supplier\Supplier;

/** Charges that were spread over what came. */
final readonly class LandedCharges
{
    private const MOST = 200;

    private const EXPERIENCES = 'SELECT one.supplier_id supplier, COUNT(*) times, SUM(one.reckoned) reckoned,
            SUM(one.came) came FROM
            (SELECT e.id, e.supplier_id, e.reckoned, SUM(b.share) came FROM landed_charge e
             JOIN landed_charge_line a ON a.charge_id = e.id JOIN landed_charge r ON r.id = e.replaced_by_id
             JOIN landed_charge_line b ON b.charge_id = r.id AND b.came_id = a.came_id
             WHERE e.kind = ? AND e.at >= ? AND e.reckoned > 0 AND r.taken_back IS NULL
                AND (? IS NULL OR e.supplier_id = ?)
             GROUP BY e.id, e.supplier_id, e.reckoned) one
         WHERE one.supplier_id IS NOT NULL GROUP BY one.supplier_id';

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byNumber(string $number): ?LandedCharge
    {
        return $this->entities->getRepository(LandedCharge::class)->findOneBy(['number' => $number]);
    }

    public function byKey(string $key): ?LandedCharge
    {
        return $this->entities->getRepository(LandedCharge::class)->findOneBy(['idempotencyKey' => $key]);
    }

    /** @return list<LandedCharge> what was billed, put on goods for good or taken back, the latest first */
    public function known(): array
    {
        return $this->found(
            'WHERE c.isExpected = false OR c.takenBack IS NOT NULL OR c.kind = :own',
            ['own' => ChargeKind::Handling],
        );
    }

    /** @return list<LandedCharge> that stand on some of a receipt */
    public function of(Receipt $receipt): array
    {
        return $this->found(
            'WHERE c.takenBack IS NULL AND EXISTS (SELECT x.id FROM '.LandedChargeLine::class.' x
                JOIN x.came k WHERE x.charge = c AND k.receipt = :receipt)',
            ['receipt' => $receipt],
        );
    }

    /** @return list<LandedCharge> that were put on goods and somebody will bill, the oldest first */
    public function expected(): array
    {
        $which = 'e.isExpected = true AND e.takenBack IS NULL';
        InBatches::ahead($this->entities, LandedCharge::class, $which, [], 'supplier');
        $query = $this->entities
            ->createQuery(
                'SELECT c FROM '.LandedCharge::class.' c
                 WHERE c.isExpected = true AND c.takenBack IS NULL AND c.kind <> :own ORDER BY c.id',
            )
            ->setParameter('own', ChargeKind::Handling);
        /** @var list<LandedCharge> $charges */
        $charges = InBatches::read($query, LandedCharge::class, 'lines')->getResult();
        $this->readReceipts($charges);

        return $charges;
    }

    /** @return list<ExpectedRow> the same, as a list shows them */
    public function expectedRows(int $most): array
    {
        /**
         * @var list<array{number: string, kind: string, amount: string, currency: string, receipts: string,
         *      came_on: string}> $rows
         */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            "SELECT c.number, c.kind, c.amount, c.currency, MIN(r.day) came_on,
                GROUP_CONCAT(DISTINCT r.number ORDER BY r.id SEPARATOR ', ') receipts
             FROM (SELECT id, number, kind, amount, currency FROM landed_charge
                WHERE is_expected = 1 AND taken_back IS NULL AND kind <> ? ORDER BY id LIMIT ?) c
             JOIN landed_charge_line l ON l.charge_id = c.id JOIN receipt_line k ON k.id = l.came_id
             JOIN receipt r ON r.id = k.receipt_id
             GROUP BY c.id, c.number, c.kind, c.amount, c.currency ORDER BY c.id",
            [ChargeKind::Handling->value, $most],
            [1 => ParameterType::INTEGER],
        );

        return array_map(static fn (array $row): ExpectedRow => new ExpectedRow(
            $row['number'],
            ChargeKind::from($row['kind']),
            Money::of($row['amount'], $row['currency']),
            $row['receipts'],
            new \DateTimeImmutable($row['came_on']),
        ), $rows);
    }

    /**
     * What came of each, with its receipt, from one query.
     *
     * @param list<LandedCharge> $charges
     */
    private function readReceipts(array $charges): void
    {
        $came = [];
        foreach ($charges as $charge) {
            foreach ($charge->lines() as $line) {
                $came[] = $line->came->id;
            }
        }
        if ([] !== $came) {
            $this->entities
                ->createQuery('SELECT k, r FROM '.ReceiptLine::class.' k JOIN k.receipt r WHERE k.id IN (:came)')
                ->setParameter('came', $came)
                ->getResult();
        }
    }

    /**
     * What a kind of charge came to beside what the tariff and the orders of a supplier said, for what was invoiced
     * since a day.
     *
     * @return array{int, BigDecimal, BigDecimal} how often, what was reckoned with, and what it came to; home currency
     */
    public function experience(Supplier $supplier, ChargeKind $kind, \DateTimeImmutable $since): array
    {
        /** @var array{times: int, reckoned: string, came: string}|false $row */
        $row = $this->entities
            ->getConnection()
            ->fetchAssociative(self::EXPERIENCES, [
                $kind->value, $since->format('Y-m-d H:i:s'), $supplier->id, $supplier->id,
            ]);

        return false === $row
            ? [0, BigDecimal::zero(), BigDecimal::zero()]
            : [$row['times'], BigDecimal::of($row['reckoned']), BigDecimal::of($row['came'])];
    }

    /** The same of every supplier there is any of, asked along with other things: see experiencesIn(). */
    public static function askExperiences(OneTrip $trip, ChargeKind $kind, \DateTimeImmutable $since): void
    {
        $trip->ask('experiences', ['supplier', 'times', 'reckoned', 'came'], 'supplier', self::EXPERIENCES, [
            $kind->value, $since->format('Y-m-d H:i:s'), null, null,
        ]);
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array<int, array{int, BigDecimal, BigDecimal}> by supplier
     */
    public static function experiencesIn(array $answers): array
    {
        $found = [];
        foreach ($answers['experiences'] as $row) {
            $found[(int) $row['supplier']] = [
                (int) $row['times'], BigDecimal::of((string) $row['reckoned']), BigDecimal::of((string) $row['came']),
            ];
        }

        return $found;
    }

    /**
     * @param array<string, object> $values
     *
     * @return list<LandedCharge>
     */
    private function found(string $where, array $values): array
    {
        /** @var list<LandedCharge> $charges */
        $charges = $this->entities
            ->createQuery(
                'SELECT c, s FROM '.LandedCharge::class.' c LEFT JOIN c.supplier s '.$where.' ORDER BY c.id DESC',
            )
            ->setParameters($values)
            ->setMaxResults(self::MOST)
            ->getResult();

        return $charges;
    }
}
