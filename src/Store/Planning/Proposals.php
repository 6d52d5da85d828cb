<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\BulkInsert;

/**
 * The proposals of the last planning run.
 *
 * @phpstan-import-type Facts from SavedProposal
 */
final readonly class Proposals
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities)
    {
    }

    /**
     * Puts a run's findings in the place of the last one's.
     *
     * @param iterable<array{ItemSite, int|null, Proposal, Forecast, Facts}> $findings item and site, offer, proposal, forecast, what was seen
     */
    public function replace(PlanningRun $run, iterable $findings): void
    {
        $this->connection->transactional(function () use ($run, $findings): void {
            $this->entities->persist($run);
            $this->entities->flush();
            $this->connection->executeStatement('DELETE FROM proposal');
            $this->connection->executeStatement('DELETE FROM planning_run WHERE id <> ?', [$run->id]);
            $rows = new BulkInsert($this->connection, 'proposal', ['run_id', 'item_id', 'site_id', 'offer_id', 'reason', 'proposed', 'packs', 'chosen', 'cover_days', 'forecast_per_week', 'explanation', 'forecast', 'facts', 'draft_id']);
            foreach ($findings as [$itemSite, $offer, $proposal, $forecast, $facts]) {
                $rows->add(
                    $run->id, $itemSite->item, $itemSite->site, $offer, $proposal->reason->value, (string) $proposal->packs, (string) $proposal->packs,
                    null === $itemSite->draft && null !== $offer && $proposal->packs->isPositive(), $proposal->coverDays, $forecast->over(28) / 4,
                    json_encode($proposal->explanation->toArray(), \JSON_THROW_ON_ERROR),
                    json_encode(['method' => $forecast->method, 'weeks' => array_map(static fn (float $week): float => round($week, 3), $forecast->weeks), 'sigma' => round($forecast->sigma, 4), 'offBy' => $forecast->offBy], \JSON_THROW_ON_ERROR),
                    json_encode($facts, \JSON_THROW_ON_ERROR),
                    $itemSite->draft,
                );
            }
            $rows->flush();
        });
    }

    public function lastRun(): ?PlanningRun
    {
        return $this->entities->getRepository(PlanningRun::class)->findOneBy([], ['id' => 'DESC']);
    }

    /** Whether stock moved or an order went out since the last run. */
    public function isOutdated(): bool
    {
        return (bool) $this->connection->fetchOne(
            'SELECT EXISTS (SELECT 1 FROM purchase_order o JOIN planning_run r ON o.sent_at > r.at) OR EXISTS (SELECT 1 FROM receipt c JOIN planning_run r ON c.at > r.at)',
        );
    }

    /** @return list<SavedProposal> with item, site, offer and supplier loaded; most urgent first */
    public function due(?int $site = null): array
    {
        $query = $this->entities->createQueryBuilder()
            ->select('p', 'i', 's', 'o', 'u', 'b')->from(SavedProposal::class, 'p')
            ->join('p.item', 'i')->join('p.site', 's')->leftJoin('p.offer', 'o')->leftJoin('o.supplier', 'u')->leftJoin('o.breaks', 'b')
            ->where('p.reason <> :covered')->setParameter('covered', Reason::Covered)
            ->orderBy('i.code')->addOrderBy('s.id');
        if (null !== $site) {
            $query->andWhere('s.id = :site')->setParameter('site', $site);
        }
        /** @var list<SavedProposal> $due */
        $due = $query->getQuery()->getResult();

        return $due;
    }

    public function find(int $id): ?SavedProposal
    {
        return $this->entities->find(SavedProposal::class, $id);
    }

    /** @return list<SavedProposal> one for each site that stocks the item */
    public function ofItem(int $item): array
    {
        return $this->entities->getRepository(SavedProposal::class)->findBy(['item' => $item], ['site' => 'ASC']);
    }
}
