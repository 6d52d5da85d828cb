<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;

/** What is to go, goes and went between our sites. */
final readonly class Transfers
{
    private const MOST = 200;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byNumber(string $number): ?Transfer
    {
        return $this->entities->getRepository(Transfer::class)->findOneBy(['number' => $number]);
    }

    public function lineByKey(string $key): ?TransferLine
    {
        return $this->entities->getRepository(TransferLine::class)->findOneBy(['idempotencyKey' => $key]);
    }

    /** The list that is being made for the next journey from here to there. */
    public function toPick(Site $source, Site $target): ?Transfer
    {
        return $this->entities->getRepository(Transfer::class)->findOneBy(
            ['source' => $source, 'target' => $target, 'state' => TransferState::ToPick],
            ['id' => 'DESC'],
        );
    }

    /** @return list<Transfer> from or to this site: open ones, the oldest first; then what is over, the latest first */
    public function all(?Site $site): array
    {
        /** @var list<Transfer> $transfers */
        $transfers = $this->entities
            ->createQuery(
                'SELECT t, l, i, s, g FROM '.Transfer::class.' t LEFT JOIN t.lines l LEFT JOIN l.item i
                 JOIN t.source s JOIN t.target g
                 WHERE t.id >= :least AND (:site IS NULL OR s.id = :site OR g.id = :site) ORDER BY t.id DESC, l.id',
            )
            ->setParameters(['site' => $site?->id, 'least' => $this->least()])
            ->getResult();
        usort($transfers, static fn (Transfer $a, Transfer $b): int => [
            $a->state()->isOver(), $a->state()->isOver() ? -$a->id : $a->id,
        ] <=> [$b->state()->isOver(), $b->state()->isOver() ? -$b->id : $b->id]);

        return $transfers;
    }

    /** What is open is among the latest; whatever it is, it is shown. */
    private function least(): int
    {
        $least = $this->entities->getConnection()->fetchOne(
            "SELECT LEAST(COALESCE((SELECT MIN(id) FROM transfer WHERE state IN ('to-pick', 'under-way')), ~0 >> 1),
                COALESCE((SELECT MAX(id) - ? FROM transfer), 0))",
            [self::MOST],
        );

        return is_numeric($least) ? (int) $least : 0;
    }

    /** Stock units of an item that other sites asked for there and that still stand there. */
    public function askedFrom(Site $source, Item $item): BigDecimal
    {
        $units = $this->entities->getConnection()->fetchOne(
            "SELECT SUM(l.wanted) FROM transfer_line l JOIN transfer t ON t.id = l.transfer_id
             WHERE t.state = 'to-pick' AND t.source_id = ? AND l.item_id = ?",
            [$source->id, $item->id],
        );

        return BigDecimal::of(is_string($units) ? $units : 0);
    }

    /** @return list<Transfer> that left for this site, or for any */
    public function underWayTo(?Site $site): array
    {
        return array_values($this->entities->getRepository(Transfer::class)->findBy(
            ['state' => TransferState::UnderWay] + (null === $site ? [] : ['target' => $site]),
            ['dueOn' => 'ASC', 'id' => 'ASC'],
        ));
    }
}
