<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\PriceBreaks;

/**
 * A supplier's offers as they stand, read in bulk, to find which of them a line of a price list means.
 *
 * @phpstan-type Standing array{id: int, item: int, code: string, pack: string, content: BigDecimal,
 *      prices: PriceBreaks, steps: string, usual: BigDecimal|null, year: BigDecimal}
 */
final readonly class StandingOffers
{
    /** Price breaks of one offer, in a form that can be compared. */
    public const STEPS = 'JSON_ARRAYAGG(JSON_ARRAY(CAST(b.from_packs AS CHAR), CAST(b.price AS CHAR))
        ORDER BY b.from_packs)';

    /**
     * @param array<int, Standing> $offers by id; usual is what is bought at a time and year what was sold, in stock
     *      units
     * @param array<int|string, non-empty-list<int>> $byCode ids by their code in capitals
     * @param array<int, non-empty-list<int>>      $byItem ids
     */
    private function __construct(public array $offers, private array $byCode, private array $byItem)
    {
    }

    /** @param \DateTimeImmutable $since for what is usual and sold */
    public static function of(Connection $connection, int $supplier, \DateTimeImmutable $since): self
    {
        $day = $since->format('Y-m-d');
        /** @var array<int, string> $year */
        $year = $connection->fetchAllKeyValue(
            'SELECT s.item_id, SUM(s.quantity) FROM sales_day s WHERE s.day >= ? AND s.item_id IN (SELECT item_id
                FROM offer WHERE supplier_id = ?) GROUP BY s.item_id',
            [$day, $supplier],
        );
        /** @var array<int, string> $usual */
        $usual = $connection->fetchAllKeyValue(
            'SELECT l.item_id, AVG(l.packs * l.pack_content) FROM order_line l
                JOIN purchase_order p ON p.id = l.order_id WHERE p.supplier_id = ? AND p.sent_at >= ? AND l.packs > 0
                GROUP BY l.item_id',
            [$supplier, $day],
        );
        /**
         * @var list<array{id: int, item: int, code: string, pack: string, content: string, kind: string, basis: string,
         *      steps: string}> $rows
         */
        $rows = $connection->fetchAllAssociative(
            'SELECT o.id, o.item_id item, o.supplier_code code, o.pack_name pack, o.pack_content content,
                o.break_kind kind, o.break_basis basis, '.
                self::STEPS.
                ' steps
            FROM offer o JOIN price_break b ON b.offer_id = o.id WHERE o.supplier_id = ? GROUP BY o.id',
            [$supplier],
        );
        $offers = $byCode = $byItem = [];
        foreach ($rows as $row) {
            /** @var list<array{string, string}> $steps */
            $steps = json_decode($row['steps'], true);
            $offers[$row['id']] = [
                'id' => $row['id'],
                'item' => $row['item'],
                'code' => $row['code'],
                'pack' => $row['pack'],
                'content' => BigDecimal::of($row['content'])->strippedOfTrailingZeros(),
                'steps' => $row['steps'],
                'prices' => PriceBreaks::of($steps, BreakKind::from($row['kind']), BreakBasis::from($row['basis'])),
                'usual' => isset($usual[$row['item']]) ? BigDecimal::of($usual[$row['item']]) : null,
                'year' => BigDecimal::of($year[$row['item']] ?? 0),
            ];
            if ('' !== $row['code']) {
                $byCode[mb_strtoupper($row['code'])][] = $row['id'];
            }
            $byItem[$row['item']][] = $row['id'];
        }

        return new self($offers, $byCode, $byItem);
    }

    /** @return list<int> ids of the offers with a code of theirs */
    public function withCode(string $code): array
    {
        return $this->byCode[mb_strtoupper($code)] ?? [];
    }

    /**
     * The offer a line is about: by their code, or by the item where we do not know their code yet.
     *
     * @return Standing|null null where they did not offer it before
     *
     * @throws InvalidValue if it could be several, or the item is offered in that pack under another code
     */
    public function meant(PriceListLine $line, ?int $item): ?array
    {
        $fits = fn (int $id): bool => ('' === $line->pack
            || 0 === strcasecmp($line->pack, $this->offers[$id]['pack']))
            && (null === $item || $item === $this->offers[$id]['item']);
        $meant = array_values(array_filter($this->withCode($line->code), $fits));
        $ofItem = null === $item ? [] : array_values(array_filter($this->byItem[$item] ?? [], $fits));
        if ([] === $meant) {
            $meant = array_values(
                array_filter($ofItem, fn (int $id): bool => '' === $this->offers[$id]['code'] || '' === $line->code),
            );
        }
        if (count($meant) > 1) {
            throw InvalidValue::because(
                sprintf(
                    '%s stands for %s here; say in a column “pack” which is meant',
                    $line->code ?: $line->item,
                    implode(' and ', array_map(fn (int $id): string => $this->offers[$id]['pack'], $meant)),
                ),
            );
        }
        if ([] === $meant && [] !== $ofItem) {
            throw InvalidValue::because(
                sprintf(
                    '%s is offered by the %s already, as %s; mend the code in the offer or here, or name another pack',
                    $line->item ?: $line->gtin,
                    $this->offers[$ofItem[0]]['pack'],
                    $this->offers[$ofItem[0]]['code'],
                ),
            );
        }

        return [] === $meant ? null : $this->offers[$meant[0]];
    }
}
