<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Begin;

use Doctrine\DBAL\Connection;
use TallBarrel\Desk\Shell\Format;

/** What a business has, and what it still lacks, in the order in which one thing needs the other. */
final readonly class StillMissing
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<MissingStep> */
    public function steps(): array
    {
        /** @var array<string, int> $count */
        $count = $this->connection->fetchAssociative(
            "SELECT (SELECT COUNT(*) FROM site WHERE closed_on IS NULL) sites,
                (SELECT COUNT(*) FROM bin) bins, (SELECT COUNT(*) FROM person WHERE blocked_at IS NULL) people,
                (SELECT COUNT(*) FROM person WHERE password = '' AND blocked_at IS NULL) invited,
                (SELECT COUNT(*) FROM item WHERE archived_on IS NULL) items,
                (SELECT COUNT(DISTINCT item_id) FROM planned_place) placed,
                (SELECT COUNT(*) FROM supplier WHERE archived_on IS NULL) suppliers,
                (SELECT COUNT(DISTINCT c.supplier_id) FROM supplier_contact c JOIN supplier s ON s.id = c.supplier_id
                    WHERE s.archived_on IS NULL AND c.email <> '') reachable,
                (SELECT COUNT(*) FROM offer) offers,
                (SELECT COUNT(DISTINCT o.item_id) FROM offer o JOIN item i ON i.id = o.item_id
                    WHERE i.archived_on IS NULL) offered,
                (SELECT COUNT(DISTINCT item_id) FROM stock_balance) counted,
                (SELECT COUNT(DISTINCT item_id) FROM sales_day) sold,
                (SELECT COALESCE(DATEDIFF(MAX(day), MIN(day)) DIV 7, 0) FROM sales_day) weeks",
        );
        $of = static fn (int $some, int $all): string => sprintf('%s of %s', Format::number($some),
            Format::number($all));

        return [
            new MissingStep(
                'Sites and bins',
                'Where stock lies and deliveries arrive. Bins tell whoever puts goods away where they go.',
                'One site is enough, and none needs bins.',
                sprintf('%s, %s', Format::plural($count['sites'], 'site'), Format::plural($count['bins'], 'bin')),
                $count['sites'] > 0,
                'sites',
                'Sites',
            ),
            new MissingStep(
                'People',
                'Who buys, who counts deliveries, who pays; and up to what amount each may order.',
                'You alone can do everything.',
                0 === $count['invited']
                    ? Format::plural($count['people'], 'person', 'people')
                    : sprintf(
                        '%s, of whom %d did not choose a password yet',
                        Format::plural($count['people'], 'person', 'people'),
                        $count['invited'],
                    ),
                $count['people'] > 1,
                'people',
                'People',
            ),
            new MissingStep(
                'Items',
                'What you sell or use. A code, a name and a unit are enough; say which site stocks them.',
                'Orders with lines in your own words can be written without a single item.',
                0 === $count['items']
                    ? 'none yet'
                    : $of($count['placed'], $count['items']).' are stocked at a site',
                $count['items'] > 0 && $count['placed'] > 0,
                'items',
                'Items',
                'items',
            ),
            new MissingStep(
                'Suppliers',
                'Who sells to you, where orders go, and when they are paid.',
                'Items, stock and sales can be kept without one.',
                0 === $count['suppliers']
                    ? 'none yet'
                    : $of($count['reachable'], $count['suppliers']).' have an address to write to',
                $count['suppliers'] > 0 && $count['reachable'] === $count['suppliers'],
                'suppliers',
                'Suppliers',
                'suppliers',
            ),
            new MissingStep(
                'Offers',
                'What each supplier asks for an item: their code, pack, price and lead time. Proposals rest on them.',
                'An order can be typed with a price of its own.',
                0 === $count['items'] ? Format::plural($count['offers'], 'offer')
                    : $of($count['offered'], $count['items']).' items are offered by somebody',
                $count['items'] > 0 && $count['offered'] === $count['items'],
                'suppliers',
                'Suppliers',
                'offers',
            ),
            new MissingStep(
                'Stock',
                'What is there today. The difference to what was known becomes a movement.',
                'What you receive from now on is counted by itself.',
                0 === $count['items'] ? 'nothing counted yet'
                    : $of($count['counted'], $count['items']).' items were counted or received',
                $count['counted'] > 0,
                'stock',
                'Stock',
                'stock',
            ),
            new MissingStep(
                'Sales by day',
                'The history that forecasts rest on: a year or two is best, eight weeks are a beginning.',
                'Levels set by hand (a minimum and a maximum, par) need no history.',
                0 === $count['sold']
                    ? 'none yet'
                    : sprintf('%s over %s', Format::plural($count['sold'], 'item'),
                        Format::plural($count['weeks'], 'week')),
                $count['weeks'] >= 8,
                'policies',
                'Levels by hand',
                'sales',
            ),
        ];
    }
}
