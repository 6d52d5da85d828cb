<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\Finding;
use TallBarrel\Core\Replenish\KnownForecast;
use TallBarrel\Core\Replenish\Move;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;

/**
 * The proposals of the last planning run: written in bulk, beside those in force, and put in their place at the end.
 *
 * @phpstan-import-type ForecastData from Forecast
 */
final readonly class Proposals
{
    private const COLUMNS = [
        'run_id',
        'item_id',
        'site_id',
        'offer_id',
        'reason',
        'proposed',
        'packs',
        'chosen',
        'listed',
        'cover_days',
        'forecast_per_week',
        'explanation',
        'forecast',
        'forecast_key',
        'facts',
        'draft_id',
        'value',
        'home_value',
        'weight_kg',
        'doubt',
        'at_risk',
        'due_in_days',
        'out_in_days',
        'sales_at_risk',
        'leaning',
        'class',
        'stage',
        'policy',
        'odd',
        'moves',
        'safety_stock',
        'reorder_point',
        'order_up_to',
        'on_hand',
        'promised',
        'coming',
        'arrival',
        'bias',
    ];
    /** What a person may have changed, and what follows from it; kept while the proposal itself stays the same. */
    private const OWN = ['packs', 'chosen', 'value', 'home_value', 'weight_kg'];

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param int $itemSites how many there are to look at
     * @param int $parts     in how many parts that is done
     * @param int $lastMoved the last note of what moved before the run began to look
     */
    public function begin(PlanningOptions $options, int $itemSites, int $parts, int $lastMoved): PlanningRun
    {
        $run = new PlanningRun($this->clock->now(), $options, $itemSites, $parts, $lastMoved);
        $this->entities->persist($run);
        $this->entities->flush();
        // A run still under way is overtaken: what it finds will not be put in place.
        $this->connection->executeStatement(
            'UPDATE planning_run SET state = ?, message = ? WHERE state = ? AND id <> ?',
            [PlanningRun::FAILED, 'overtaken by a newer one', PlanningRun::RUNNING, $run->id],
        );

        return $run;
    }

    /** @param list<Finding> $findings */
    public function stage(PlanningRun $run, array $findings): void
    {
        $rows = new BulkInsert(
            $this->connection,
            'staged_proposal',
            self::COLUMNS,
            ' ON DUPLICATE KEY UPDATE run_id = VALUES(run_id)',
            250,
        );
        foreach ($findings as $finding) {
            $rows->add(...$this->row($run, $finding));
        }
        $rows->flush();
    }

    /** @return list<scalar|null> in the order of the columns */
    private function row(PlanningRun $run, Finding $finding): array
    {
        $outcome = $finding->outcome;
        [$place, $proposal, $forecast] = [$outcome->place, $outcome->proposal, $outcome->forecast()];
        $explanation = $proposal->explanation;
        $expected = $forecast->over(28);
        $moves = array_map(
            static fn (Move $move): array => [
                'site' => $move->site,
                'units' => $move->units,
                'saves' => round($move->saves, 2),
                'risks' => round($move->risks, 2),
            ],
            $finding->moves,
        );

        return [
            $run->id,
            $place->item->id,
            $place->site,
            $outcome->sourced->offer?->id,
            $proposal->reason->value,
            (string) $finding->packs,
            (string) $finding->packs,
            $finding->chosen,
            $finding->listed,
            $proposal->coverDays,
            $expected / 4,
            self::json($explanation->toArray()),
            self::json($forecast->toArray()),
            $outcome->known->key,
            self::json($outcome->evidence->toArray()),
            $place->steering->draft,
            (string) ($finding->value()->amount ?? 0),
            (string) ($finding->homeValue()->amount ?? 0),
            $finding->weightKg(),
            $expected > 0 ? $forecast->sigmaOver(28) / $expected : 0.0,
            $proposal->atRisk,
            $proposal->dueInDays,
            $finding->shortage?->outInDays,
            $finding->shortage->sales ?? 0.0,
            $outcome->astray(),
            $outcome->class,
            $outcome->stage()->value,
            $outcome->policy->kind->value,
            self::json(Note::all($finding->odd)),
            self::json($moves),
            $explanation->safetyStock,
            $explanation->reorderPoint,
            $explanation->orderUpTo,
            $place->stock->onHand->toFloat(),
            $place->stock->promised->toFloat(),
            $place->stock->coming->units()->toFloat(),
            $outcome->sourced->arrival->format('Y-m-d'),
            $forecast->bias,
        ];
    }

    /** @param array<mixed> $data */
    private static function json(array $data): string
    {
        return json_encode($data, \JSON_THROW_ON_ERROR);
    }

    /**
     * Notes that a part of a run has been looked at; noted twice, it counts once.
     *
     * @param int $itemSites how many it had
     *
     * @return int how many parts are left
     */
    public function finishPart(PlanningRun $run, int $part, int $itemSites): int
    {
        return $this->connection->transactional(function () use ($run, $part, $itemSites): int {
            $parts = $this->connection->fetchOne('SELECT parts FROM planning_run WHERE id = ? FOR UPDATE', [$run->id]);
            $new = $this->connection->executeStatement(
                'INSERT IGNORE INTO staged_part (run_id, number) VALUES (?, ?)',
                [$run->id, $part],
            );
            if ($new > 0) {
                $this->connection->executeStatement('UPDATE planning_run SET done = done + ? WHERE id = ?', [
                    $itemSites,
                    $run->id,
                ]);
            }
            $finished = $this->connection->fetchOne('SELECT COUNT(*) FROM staged_part WHERE run_id = ?', [$run->id]);

            return is_numeric($parts) && is_numeric($finished) ? (int) $parts - (int) $finished : 0;
        });
    }

    public function fail(int $run, string $message): void
    {
        $this->connection->executeStatement(
            'UPDATE planning_run SET state = ?, message = ? WHERE id = ? AND state = ?',
            [PlanningRun::FAILED, mb_substr($message, 0, 300), $run, PlanningRun::RUNNING],
        );
        $this->forget($run);
    }

    /**
     * Runs that nobody is at work on any more, and what broken ones left.
     *
     * @param int $seconds since when none of their parts can still be on its way to a worker
     *
     * @return int how many were closed
     */
    public function closeBroken(\DateTimeImmutable $now, int $seconds = 60): int
    {
        /** @var list<int> $broken */
        $broken = $this->connection->fetchFirstColumn(
            "SELECT r.id FROM planning_run r WHERE r.state = ? AND r.begun < ?
             AND NOT EXISTS (SELECT 1 FROM queued_message q WHERE q.queue_name = 'planning')",
            [PlanningRun::RUNNING, (float) $now->format('U.u') - $seconds],
        );
        foreach ($broken as $run) {
            $this->fail($run, 'It broke off. Calculate again.');
        }
        // Without locks: what a run is about to put in place must not wait for a look whether it is left over.
        /** @var list<int> $left */
        $left = $this->connection->fetchFirstColumn(
            'SELECT s.run_id FROM (SELECT run_id FROM staged_proposal UNION SELECT run_id FROM staged_part) s
             LEFT JOIN planning_run r ON r.id = s.run_id AND r.state = ? WHERE r.id IS NULL',
            [PlanningRun::RUNNING],
        );
        array_walk($left, $this->forget(...));

        return count($broken);
    }

    private function forget(int $run): void
    {
        $this->connection->executeStatement('DELETE FROM staged_proposal WHERE run_id = ?', [$run]);
        $this->connection->executeStatement('DELETE FROM staged_part WHERE run_id = ?', [$run]);
    }

    /**
     * Puts what a run staged in the place of what there was. A quantity somebody typed stays while what the rule comes
     * to
     * stays the same; what the rule came to before is remembered beside what it comes to now.
     *
     * @param list<int>|null $items only these, and the rest stays as it is; null for all
     */
    public function settle(PlanningRun $run, ?array $items = null): void
    {
        $this->connection->transactional(function () use ($run, $items): void {
            $state = $this->connection->fetchOne('SELECT state FROM planning_run WHERE id = ? FOR UPDATE', [$run->id]);
            if ((null === $items ? PlanningRun::RUNNING : PlanningRun::DONE) !== $state) {
                $this->forget($run->id);

                return;
            }
            $same =
                'proposal.proposed <=> VALUES(proposed) AND proposal.offer_id <=> VALUES(offer_id) AND '.
                'proposal.draft_id IS NULL';
            $set = array_map(
                static fn (string $column): string => sprintf(
                    '%1$s = IF(proposal.touched AND %2$s, proposal.%1$s, VALUES(%1$s))',
                    $column,
                    $same,
                ),
                self::OWN,
            );
            $few = null === $items ? 0 : 1;
            if (null !== $items) {
                // A new look at a few items does not undo what the budget left out or what fills an order.
                $set[1] = sprintf(
                    'chosen = IF(proposal.touched AND %1$s, proposal.chosen, IF(proposal.cut AND %1$s, 0, '.
                        'VALUES(chosen)))',
                    $same,
                );
            }
            $kept = sprintf(
                "(%d AND proposal.touched AND %s AND proposal.reason = 'fills-order' AND VALUES(reason) = 'covered')",
                $few,
                $same,
            );
            $set[] = sprintf('listed = IF(%s, 1, VALUES(listed))', $kept);
            $set[] = sprintf('cut = IF(%d AND proposal.cut AND %s, 1, 0)', $few, $same);
            // Assigned from left to right: what others look at comes last.
            $set[] = sprintf('reason = IF(%s, proposal.reason, VALUES(reason))', $kept);
            $set[] =
                'split_offer_id = IF(proposal.touched AND proposal.proposed <=> VALUES(proposed), '.
                'proposal.split_offer_id, NULL)';
            $set[] =
                'split_packs = IF(proposal.touched AND proposal.proposed <=> VALUES(proposed), proposal.split_packs, '.
                'NULL)';
            $set[] =
                'touched = IF(proposal.proposed <=> VALUES(proposed) AND proposal.offer_id <=> VALUES(offer_id), '.
                'proposal.touched, 0)';
            $set[] = sprintf(
                'proposed_before = IF(proposal.proposed <=> VALUES(proposed), IF(%d, proposal.proposed_before, '.
                    'NULL), proposal.proposed)',
                $few,
            );
            foreach (array_diff(self::COLUMNS, self::OWN, ['item_id', 'site_id', 'listed', 'reason']) as $column) {
                $set[] = sprintf('%1$s = VALUES(%1$s)', $column);
            }
            $columns = implode(', ', self::COLUMNS);
            $this->connection->executeStatement(
                sprintf(
                    'INSERT INTO proposal (%1$s) SELECT %1$s FROM staged_proposal WHERE run_id = ?
                        ON DUPLICATE KEY UPDATE %2$s',
                    $columns,
                    implode(', ', $set),
                ),
                [$run->id],
            );
            if (null !== $items) {
                $this->connection->executeStatement(
                    'DELETE p FROM proposal p LEFT JOIN planned_place t ON t.item_id = p.item_id
                        AND t.site_id = p.site_id WHERE p.item_id IN (?) AND t.item_id IS NULL',
                    [$items],
                    [ArrayParameterType::INTEGER],
                );
            }
            if (null === $items) {
                $this->connection->executeStatement('DELETE FROM proposal WHERE run_id <> ?', [$run->id]);
                $this->connection->executeStatement('DELETE FROM planning_run WHERE id < ?', [$run->id]);
                // What moved before the run began has been looked at by it.
                $this->connection->executeStatement('DELETE FROM moved_item WHERE id <= ?', [$run->lastMoved()]);
                $milliseconds = max(
                    1,
                    (int) round(1000 * ((float) $this->clock->now()->format('U.u') - $run->begun())),
                );
                $this->connection->executeStatement(
                    'UPDATE planning_run SET state = ?, milliseconds = ? WHERE id = ?',
                    [PlanningRun::DONE, $milliseconds, $run->id],
                );
            }
            $this->forget($run->id);
        });
        if ($this->entities->contains($run)) {
            $this->entities->refresh($run);
        }
    }

    /**
     * Forecasts of the last run that still hold where history, horizon and season are the same.
     *
     * @param list<int> $items
     *
     * @return array<string, KnownForecast> by "item:site"
     */
    public function forecasts(array $items): array
    {
        /** @var list<array{k: string, forecast_key: string, forecast: string}> $rows */
        $rows =
            [] === $items
                ? []
                : $this->connection->fetchAllAssociative(
                    "SELECT CONCAT(item_id, ':', site_id) k, forecast_key, forecast FROM proposal WHERE item_id IN (?)",
                    [$items],
                    [ArrayParameterType::INTEGER],
                );
        $known = [];
        foreach ($rows as $row) {
            /** @var ForecastData $data */
            $data = json_decode($row['forecast'], true, flags: \JSON_THROW_ON_ERROR);
            $known[$row['k']] = new KnownForecast($row['forecast_key'], Forecast::fromArray($data));
        }

        return $known;
    }

    /** The run whose proposals are in force. */
    public function lastRun(): ?PlanningRun
    {
        return $this->entities
            ->getRepository(PlanningRun::class)
            ->findOneBy(['state' => PlanningRun::DONE], ['id' => 'DESC']);
    }

    /** The run begun last, whatever became of it. */
    public function latestRun(): ?PlanningRun
    {
        return $this->entities->getRepository(PlanningRun::class)->findOneBy([], ['id' => 'DESC']);
    }

    /** As it is now, whoever changed it. */
    public function run(int $id): ?PlanningRun
    {
        $run = $this->entities->find(PlanningRun::class, $id);
        if (null !== $run) {
            $this->entities->refresh($run);
        }

        return $run;
    }

    public function isRunning(int $id): bool
    {
        return PlanningRun::RUNNING ===
            $this->connection->fetchOne('SELECT state FROM planning_run WHERE id = ?', [$id]);
    }

    /**
     * @param list<int> $ids
     * @param bool      $withOffers whether their offers are read along; false where all offers are read anyway
     *
     * @return list<SavedProposal> in this order, with item and site loaded
     */
    public function load(array $ids, bool $withOffers = true): array
    {
        if ([] === $ids) {
            return [];
        }
        $query = $this->entities
            ->createQueryBuilder()
            ->select('p', 'i')
            ->from(SavedProposal::class, 'p', 'p.id')
            ->join('p.item', 'i')
            ->where('p.id IN (:ids)')
            ->setParameter('ids', $ids);
        if ($withOffers) {
            $query->addSelect('o', 'b')->leftJoin('p.offer', 'o')->leftJoin('o.breaks', 'b');
        }
        /** @var array<int, SavedProposal> $found */
        $found = $query->getQuery()->getResult();

        // Drafts are few, and wide: all of them at once, not with each row.
        $drafts = array_filter(array_map(static fn (SavedProposal $one): ?PurchaseOrder => $one->draft(), $found));
        if ([] !== $drafts) {
            $this->entities->getRepository(PurchaseOrder::class)->findBy(['id' => array_column($drafts, 'id')]);
        }

        return array_values(array_filter(array_map(static fn (int $id): ?SavedProposal => $found[$id] ?? null, $ids)));
    }

    /**
     * The first there is of these, with its item, and the supplier it would come from.
     *
     * @param list<int> $ids
     */
    public function firstOf(array $ids): ?SavedProposal
    {
        /** @var array<int, SavedProposal> $found */
        $found = [] === $ids ? [] : $this->entities
            ->createQueryBuilder()
            ->select('p', 'i', 'o', 's')
            ->from(SavedProposal::class, 'p', 'p.id')
            ->join('p.item', 'i')
            ->leftJoin('p.offer', 'o')
            ->leftJoin('o.supplier', 's')
            ->where('p.id IN (:ids)')
            ->setParameter('ids', $ids)
            ->getQuery()
            ->getResult();
        foreach ($ids as $id) {
            if (isset($found[$id])) {
                return $found[$id];
            }
        }

        return null;
    }

    public function find(int $id): ?SavedProposal
    {
        return $this->entities->find(SavedProposal::class, $id);
    }

    public function at(string $item, string $site): ?SavedProposal
    {
        /** @var SavedProposal|null $found */
        $found = $this->entities
            ->createQuery(
                'SELECT p FROM '.
                    SavedProposal::class.
                    ' p JOIN p.item i JOIN p.site s WHERE i.code = :item AND s.code = :site',
            )
            ->setParameter('item', $item)
            ->setParameter('site', $site)
            ->getOneOrNullResult();

        return $found;
    }

    /**
     * @return list<SavedProposal> one for each site that stocks the item; whoever looks at one item has it and what is
     *      offered of it anyway
     */
    public function ofItem(int $item): array
    {
        /** @var list<SavedProposal> $found */
        $found = $this->entities
            ->createQuery('SELECT p FROM '.SavedProposal::class.' p WHERE p.item = :item ORDER BY p.site')
            ->setParameter('item', $item)
            ->getResult();

        return $found;
    }

    /** @return list<PutOff> still in force, the soonest first */
    public function putOff(?Site $site): array
    {
        /** @var list<PutOff> $all */
        $all = $this->entities
            ->createQuery(
                'SELECT f, i, s, p FROM '.
                    PutOff::class.
                    ' f JOIN f.item i JOIN f.site s JOIN f.by p WHERE f.until > :today ORDER BY f.until',
            )
            ->setParameter('today', $this->clock->now()->format('Y-m-d'))
            ->getResult();

        return array_values(
            array_filter($all, static fn (PutOff $one): bool => null === $site || $one->site === $site),
        );
    }
}
