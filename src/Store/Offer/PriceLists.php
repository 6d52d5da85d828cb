<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Repricing;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/**
 * Price lists: read and set against the offers that stand, line by line; then applied, all or what was chosen, in one
 * transaction and in sets, however long they are.
 */
final readonly class PriceLists
{
    /** A fall by more than this is as likely a slip as a gift. */
    public const STRIKING_FALL = 50;
    public const PAGE = 100;
    private const PROBLEMS_KEPT = 300;
    private const NEW_LEAD_DAYS = 7;

    public function __construct(private EntityManagerInterface $entities, private PriceListFormat $format, private OfferPrices $prices, private Offers $offers, private Audit $audit, private ClockInterface $clock)
    {
    }

    /** @return array<string, string> what a file may say, see PriceListFormat */
    public function columns(): array
    {
        return $this->format->columns();
    }

    /** What stands, as a list in the same form: to send to the supplier, or to begin with. */
    public function standingAsFile(Supplier $supplier): string
    {
        return $this->format->write($this->offers->of($supplier));
    }

    /** @return list<PriceList> latest first */
    public function of(Supplier $supplier): array
    {
        return $this->entities->getRepository(PriceList::class)->findBy(['supplier' => $supplier], ['id' => 'DESC']);
    }

    /**
     * Takes a file in and sets it against what stands. No offer is changed.
     *
     * @throws InvalidValue if it is not such a file at all
     */
    public function bring(PriceList $list, string $file): void
    {
        $problems = $lines = $unread = [];
        foreach ($this->format->read($file, $list->supplier->currency(), $problems, $unread) as $line) {
            $lines[] = $line;
        }
        if ([] === $lines && [] === $problems) {
            throw InvalidValue::because('The file names its columns but lists nothing.');
        }
        $this->entities->wrapInTransaction(function () use ($list, $lines, $unread, &$problems): void {
            $this->entities->persist($list);
            $this->entities->flush();
            $this->compare($list, $lines, $unread, $problems);
            usort($problems, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $list->wasRead(count($lines), count(array_unique(array_column($problems, 0))), array_slice($problems, 0, self::PROBLEMS_KEPT));
        });
    }

    /**
     * @param list<PriceListLine>                      $lines
     * @param list<string>                             $unread   codes of lines that could not be used
     * @param list<array{int, string, string, string}> $problems
     */
    private function compare(PriceList $list, array $lines, array $unread, array &$problems): void
    {
        $connection = $this->entities->getConnection();
        /** @var array<string, int> $items */
        $items = $connection->fetchAllKeyValue('SELECT UPPER(code), id FROM item');
        /** @var array<string, int> $gtins */
        $gtins = $connection->fetchAllKeyValue('SELECT gtin, id FROM item WHERE gtin IS NOT NULL');
        $standing = StandingOffers::of($connection, $list->supplier->id, $this->clock->now()->modify('-1 year'));
        $rows = new BulkInsert($connection, 'price_list_row', ['list_id', 'move', 'file_line', 'offer_id', 'item_id', 'code', 'description', 'pack_name', 'content', 'old_content', 'minimum', 'multiple', 'lead_days', 'old_steps', 'steps', 'percent', 'yearly', 'chosen']);
        /** @var array<int, int> $listed file line by offer */
        $listed = [];
        foreach ($lines as $line) {
            $item = '' !== $line->item ? $items[strtoupper($line->item)] ?? null : ('' !== $line->gtin ? $gtins[$line->gtin] ?? null : null);
            try {
                if ('' !== $line->item && null === $item) {
                    throw InvalidValue::because('no such item');
                }
                $offer = $standing->meant($line, $item);
                if (null === $offer) {
                    $move = null === $item ? PriceMove::NotHeld : PriceMove::Added;
                    $rows->add($list->id, $move->value, $line->line, null, $item, $line->code, $line->description, $line->packName(), (string) ($line->content ?? 1), null, (string) ($line->minimum ?? 1), (string) ($line->multiple ?? 1), $line->leadDays ?? self::NEW_LEAD_DAYS, null, self::json($line->prices), null, null, null !== $item);
                    continue;
                }
                if (isset($listed[$offer['id']])) {
                    throw InvalidValue::because(sprintf('the same offer as in line %d', $listed[$offer['id']]));
                }
                $listed[$offer['id']] = $line->line;
                $prices = $line->prices->reckonedAs($offer['prices']->kind, $offer['prices']->basis);
            } catch (InvalidValue $problem) {
                $problems[] = [$line->line, '' !== $line->item && null === $item ? 'item' : 'code', $line->code ?: $line->item, $problem->getMessage()];
                $unread[] = $line->code;
                continue;
            }
            $content = $line->content ?? $offer['content'];
            $change = Repricing::between($offer['prices'], $offer['content'], $prices, $content);
            $percent = $change->percent();
            $move = match (true) {
                0.0 === $percent && $offer['content']->isEqualTo($content) && self::json($offer['prices']) === self::json($prices) => PriceMove::Same,
                null === $percent || $percent > $list->limitPercent()->toFloat() || $percent < -self::STRIKING_FALL => PriceMove::Striking,
                $percent > 0 => PriceMove::Rise,
                default => PriceMove::Fall,
            };
            $yearly = $offer['year']->isZero() ? BigDecimal::zero() : $change->ofUnit($offer['usual'] ?? $offer['content'])->multipliedBy($offer['year'])->toScale(2, RoundingMode::HalfUp);
            $rows->add($list->id, $move->value, $line->line, $offer['id'], $offer['item'], $line->code, $line->description, $offer['pack'], (string) $content, (string) $offer['content'], 1, 1, 0, $offer['steps'], self::json($prices), null === $percent ? null : min($percent, 9999999), (string) $yearly, PriceMove::Striking !== $move);
        }
        // What stands in a line that cannot be used is not gone.
        $named = array_flip(array_merge(...array_map($standing->withCode(...), $unread)));
        foreach ($list->complete ? $standing->offers : [] as $id => $offer) {
            if (!isset($listed[$id]) && !isset($named[$id])) {
                $rows->add($list->id, PriceMove::Gone->value, 0, $id, $offer['item'], $offer['code'], '', $offer['pack'], (string) $offer['content'], (string) $offer['content'], 1, 1, 0, $offer['steps'], null, null, null, false);
            }
        }
        $rows->flush();
    }

    private static function json(PriceBreaks $prices): string
    {
        return (string) json_encode(array_map(static fn (array $step): array => [(string) $step['from']->strippedOfTrailingZeros(), (string) $step['price']->strippedOfTrailingZeros()], $prices->steps));
    }

    /** Moves the limit above which a rise is striking; those rows are chosen or not afresh. */
    public function limit(PriceList $list, BigDecimal $percent): void
    {
        $list->mustBeOpen();
        $list->limit($percent);
        $this->entities->flush();
        $this->entities->getConnection()->executeStatement(
            "UPDATE price_list_row SET chosen = percent BETWEEN :fall AND :limit, move = IF(percent BETWEEN :fall AND :limit, IF(percent > 0, 'rise', 'fall'), 'striking')
             WHERE list_id = :list AND move IN ('striking', 'rise', 'fall') AND percent IS NOT NULL AND (move = 'striking') = (percent BETWEEN :fall AND :limit)",
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
        $this->entities->getConnection()->executeStatement(
            "UPDATE price_list_row SET chosen = id IN (:chosen) WHERE list_id = :list AND id IN (:shown) AND move <> 'not-held'",
            ['list' => $list->id, 'shown' => $shown ?: [0], 'chosen' => $chosen ?: [0]], ['shown' => ArrayParameterType::INTEGER, 'chosen' => ArrayParameterType::INTEGER],
        );
    }

    public function chooseAll(PriceList $list, PriceMove $move, bool $chosen): void
    {
        $list->mustBeOpen();
        if ($move->canBeChosen()) {
            $this->entities->getConnection()->executeStatement('UPDATE price_list_row SET chosen = ? WHERE list_id = ? AND move = ?', [(int) $chosen, $list->id, $move->value]);
        }
    }

    /** @return array<string, array{rows: int, chosen: int, yearly: string}> by move, of those there are, in the order to look at them */
    public function counts(PriceList $list): array
    {
        /** @var array<string, array{rows: int, chosen: string, yearly: string}> $counts */
        $counts = $this->entities->getConnection()->fetchAllAssociativeIndexed('SELECT move, COUNT(*) `rows`, SUM(chosen) chosen, COALESCE(SUM(yearly * chosen), 0) yearly FROM price_list_row WHERE list_id = ? GROUP BY move', [$list->id]);
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
        $rows = $this->entities->createQueryBuilder()->select('r', 'i')->from(PriceListRow::class, 'r')->leftJoin('r.item', 'i')->where('r.list = :list AND r.move = :move')
            ->setParameter('list', $list)->setParameter('move', $move->value)->orderBy('r.percent', PriceMove::Fall === $move ? 'ASC' : 'DESC')->addOrderBy('r.line')->addOrderBy('r.id')
            ->setFirstResult(self::PAGE * ($page - 1))->setMaxResults(self::PAGE)->getQuery()->getResult();

        return $rows;
    }

    /**
     * Applies what is chosen, all of it or nothing: from today at once, from a later day when that comes.
     *
     * @return int how many lines
     *
     * @throws Refused if it was done before, nothing is chosen, or an offer has changed since the list was read
     */
    public function apply(PriceList $list, Person $person): int
    {
        return $this->entities->wrapInTransaction(function () use ($list, $person): int {
            $this->entities->lock($list, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($list);
            $list->mustBeOpen();
            $connection = $this->entities->getConnection();
            $connection->executeQuery('SELECT id FROM offer WHERE supplier_id = ? FOR UPDATE', [$list->supplier->id])->free();
            $this->refuseWhatMovedMeanwhile($list);
            $today = $this->clock->now()->format('Y-m-d');
            $values = ['list' => $list->id, 'supplier' => $list->supplier->id, 'today' => $today, 'from' => $list->fromDay()->format('Y-m-d'), 'until' => $list->untilDay()?->format('Y-m-d'), 'source' => mb_substr($list->label(), 0, 120)];
            $chosen = array_sum(array_column($this->counts($list), 'chosen'));
            if (0 === $chosen) {
                throw new Refused('No line is chosen; tick what is to be applied.');
            }
            // Offers that are new: with their prices, from the list's first day on.
            $connection->executeStatement(
                "INSERT INTO offer (version, supplier_id, item_id, supplier_code, description, pack_name, pack_content, minimum, multiple, split, lead_days, rank, valid_from, valid_until)
                 SELECT 1, :supplier, r.item_id, r.code, r.description, r.pack_name, r.content, r.minimum, r.multiple, 0, r.lead_days, COALESCE((SELECT MAX(o.rank) FROM offer o WHERE o.item_id = r.item_id), 0) + 1, :from, :until
                 FROM price_list_row r WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'", $values);
            $connection->executeStatement(
                "UPDATE price_list_row r JOIN offer o ON o.supplier_id = :supplier AND o.item_id = r.item_id AND o.pack_name = r.pack_name SET r.offer_id = o.id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'", $values);
            // Old prices stay as history; the new ones join it and come into force with their day.
            $connection->executeStatement(
                "INSERT INTO offer_price (offer_id, from_day, steps, kind, basis, pack_content, source, applied)
                 SELECT r.offer_id, NULL, r.old_steps, o.break_kind, o.break_basis, o.pack_content, 'before', 1 FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall') AND NOT EXISTS (SELECT 1 FROM offer_price p WHERE p.offer_id = o.id)", $values);
            $connection->executeStatement(
                "INSERT INTO offer_price (offer_id, from_day, steps, kind, basis, pack_content, source, applied)
                 SELECT r.offer_id, IF(r.move = 'added', LEAST(:from, :today), :from), r.steps, o.break_kind, o.break_basis, r.content, :source, 0 FROM price_list_row r JOIN offer o ON o.id = r.offer_id
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall', 'added')", $values);
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id SET o.version = o.version + 1, o.valid_until = IF(:until IS NULL AND o.valid_until >= :from, o.valid_until, :until)
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move IN ('striking', 'rise', 'fall', 'same') AND (o.valid_until IS NOT NULL OR :until IS NOT NULL)", $values);
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id SET o.version = o.version + 1, o.valid_until = LEAST(COALESCE(o.valid_until, '9999-12-31'), DATE_SUB(:from, INTERVAL 1 DAY)), o.valid_from = IF(o.valid_from >= :from, NULL, o.valid_from)
                 WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'gone'", $values);
            $connection->executeStatement(
                "UPDATE offer o JOIN price_list_row r ON r.offer_id = o.id SET o.version = o.version + 1, o.supplier_code = r.code
                 WHERE r.list_id = :list AND r.chosen = 1 AND o.supplier_code = '' AND r.code <> ''", $values);
            $this->prices->putInForce($this->clock->now());
            $list->settle(PriceList::APPLIED, $this->clock->now(), $chosen);
            $this->audit->note($person, 'supplier '.$list->supplier->code, sprintf('Applied %d lines of the %s, from %s', $chosen, $list->label(), $list->fromDay()->format('j M Y')));

            return $chosen;
        });
    }

    /** @throws Refused */
    public function putAway(PriceList $list): void
    {
        $list->settle(PriceList::LEFT, $this->clock->now());
        $this->entities->flush();
    }

    /** @throws Refused */
    private function refuseWhatMovedMeanwhile(PriceList $list): void
    {
        /** @var list<string> $moved */
        $moved = $this->entities->getConnection()->fetchFirstColumn(
            'SELECT r.code FROM price_list_row r JOIN offer o ON o.id = r.offer_id JOIN price_break b ON b.offer_id = o.id WHERE r.list_id = :list AND r.chosen = 1
             GROUP BY r.id HAVING '.StandingOffers::STEPS." <> MAX(r.old_steps) OR MAX(o.pack_content) <> MAX(r.old_content)
             UNION ALL
             SELECT r.code FROM price_list_row r JOIN offer o ON o.supplier_id = :supplier AND o.item_id = r.item_id AND o.pack_name = r.pack_name WHERE r.list_id = :list AND r.chosen = 1 AND r.move = 'added'",
            ['list' => $list->id, 'supplier' => $list->supplier->id],
        );
        if ([] !== $moved) {
            throw new Refused(sprintf('%s changed since this list was read: %s%s. Nothing was applied; bring the list again to see it against what stands now.', 1 === count($moved) ? 'An offer' : count($moved).' offers', implode(', ', array_slice($moved, 0, 5)), count($moved) > 5 ? ' and more' : ''));
        }
    }
}
