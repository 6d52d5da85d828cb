<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Supplier\Supplier;

/** Price lists with their lines: found, added up, ticked. */
final readonly class PriceLists
{
    /** A fall by more than this is as likely a slip as a gift. */
    public const STRIKING_FALL = 50;
    public const PAGE = 100;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<PriceList> latest first */
    public function of(Supplier $supplier): array
    {
        return $this->entities->getRepository(PriceList::class)->findBy(['supplier' => $supplier], ['id' => 'DESC']);
    }

    /** Moves the limit above which a rise is striking; those rows are chosen or not afresh. */
    public function limit(PriceList $list, BigDecimal $percent): void
    {
        $list->mustBeOpen();
        $list->limit($percent);
        $this->entities->flush();
        $this->entities->getConnection()->executeStatement(
            "UPDATE price_list_row SET chosen = percent BETWEEN :fall AND :limit,
                move = IF(percent BETWEEN :fall AND :limit, IF(percent > 0, 'rise', 'fall'), 'striking')
             WHERE list_id = :list AND move IN ('striking', 'rise', 'fall') AND percent IS NOT NULL
             AND (move = 'striking') = (percent BETWEEN :fall AND :limit)",
            ['list' => $list->id, 'limit' => (string) $percent, 'fall' => -self::STRIKING_FALL],
        );
    }

    /**
     * @param list<int> $shown  rows a person saw
     * @param list<int> $chosen those of them that were ticked
     */
    public function choose(PriceList $list, array $shown, array $chosen): void
    {
        $list->mustBeOpen();
        $this->entities
            ->getConnection()
            ->executeStatement(
                "UPDATE price_list_row SET chosen = id IN (:chosen)
                    WHERE list_id = :list AND id IN (:shown) AND move <> 'not-held'",
                ['list' => $list->id, 'shown' => $shown ?: [0], 'chosen' => $chosen ?: [0]],
                ['shown' => ArrayParameterType::INTEGER, 'chosen' => ArrayParameterType::INTEGER],
            );
    }

    public function chooseAll(PriceList $list, PriceMove $move, bool $chosen): void
    {
        $list->mustBeOpen();
        if ($move->canBeChosen()) {
            $this->entities
                ->getConnection()
                ->executeStatement('UPDATE price_list_row SET chosen = ? WHERE list_id = ? AND move = ?', [
                    (int) $chosen,
                    $list->id,
                    $move->value,
                ]);
        }
    }

    /**
     * @return array<string, array{rows: int, chosen: int, yearly: string}> by move, of those there are, in the order to
     *      look at them
     */
    public function counts(PriceList $list): array
    {
        /** @var array<string, array{rows: int, chosen: string, yearly: string}> $counts */
        $counts = $this->entities
            ->getConnection()
            ->fetchAllAssociativeIndexed(
                'SELECT move, COUNT(*) `rows`, SUM(chosen) chosen, COALESCE(SUM(yearly * chosen), 0) yearly
                    FROM price_list_row WHERE list_id = ? GROUP BY move',
                [$list->id],
            );
        $ordered = [];
        foreach (PriceMove::cases() as $move) {
            if (isset($counts[$move->value])) {
                $ordered[$move->value] = ['chosen' => (int) $counts[$move->value]['chosen']] + $counts[$move->value];
            }
        }

        return $ordered;
    }

    /** @return list<PriceListRow> a page of them, the dearest first */
    public function rows(PriceList $list, PriceMove $move, int $page): array
    {
        /** @var list<PriceListRow> $rows */
        $rows = $this->entities
            ->createQueryBuilder()
            ->select('r', 'i')
            ->from(PriceListRow::class, 'r')
            ->leftJoin('r.item', 'i')
            ->where('r.list = :list AND r.move = :move')
            ->setParameter('list', $list)
            ->setParameter('move', $move->value)
            ->orderBy('r.percent', PriceMove::Fall === $move ? 'ASC' : 'DESC')
            ->addOrderBy('r.line')
            ->addOrderBy('r.id')
            ->setFirstResult(self::PAGE * ($page - 1))
            ->setMaxResults(self::PAGE)
            ->getQuery()
            ->getResult();

        return $rows;
    }
}
