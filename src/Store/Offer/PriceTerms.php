<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\AgreedPrices;
use TallBarrel\Core\Sourcing\AgreedScope;
use TallBarrel\Core\Sourcing\BreakBasis;

/** What was agreed beyond single offers, as it holds today; read once a request. */
final class PriceTerms implements ResetInterface
{
    private ?AgreedPrices $today = null;

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    public function today(): AgreedPrices
    {
        return $this->today ??= $this->on($this->clock->now());
    }

    /** Of two alike in scope the one that began last holds. */
    public function on(\DateTimeImmutable $day): AgreedPrices
    {
        /**
         * @var list<array{id: int, name: string, supplier_id: int|null, supplier_group: string, item_id: int|null,
         *      item_group: string, kind: string, basis: string, currency: string, steps: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT id, name, supplier_id, supplier_group, item_id, item_group, kind, basis, currency, steps
             FROM price_term WHERE first_day <= :day AND (last_day IS NULL OR last_day >= :day)
             ORDER BY first_day DESC, id DESC',
            ['day' => $day->format('Y-m-d')],
        );

        return AgreedPrices::of(array_map(
            static fn (array $row): AgreedPrice => AgreedPrice::read(
                $row['id'],
                AgreedScope::of($row['supplier_id'], $row['supplier_group'], $row['item_id'], $row['item_group']),
                AgreedKind::from($row['kind']),
                BreakBasis::from($row['basis']),
                $row['currency'],
                $row['steps'],
                $row['name'],
            ),
            $rows,
        ));
    }

    /** Where one was added or changed, what was read before no longer counts. */
    public function reset(): void
    {
        $this->today = null;
    }
}
