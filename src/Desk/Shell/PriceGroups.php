<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\Connection;
use Twig\Attribute\AsTwigFunction;

/** The groups that suppliers and items are priced by, to choose from while typing. */
final readonly class PriceGroups
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array<string, list<string>> by the id of the list */
    #[AsTwigFunction('price_groups')]
    public function all(): array
    {
        /** @var list<array{list: string, name: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT DISTINCT 'supplier-groups' list, price_group name FROM supplier WHERE price_group <> ''
             UNION SELECT 'supplier-groups', supplier_group FROM price_term WHERE supplier_group <> ''
             UNION SELECT 'item-groups', price_group FROM item WHERE price_group <> ''
             UNION SELECT 'item-groups', item_group FROM price_term WHERE item_group <> '' ORDER BY 1, 2",
        );
        $groups = ['supplier-groups' => [], 'item-groups' => []];
        foreach ($rows as $row) {
            $groups[$row['list']][] = $row['name'];
        }

        return $groups;
    }
}
