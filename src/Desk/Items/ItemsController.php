<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Doctrine\DBAL\Connection;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Store\Item\ItemSearch;
use TallBarrel\Store\Item\QuickSearch;

/** The catalogue: every item and what it still lacks before it can be ordered. An item's own page is at Stock. */
final class ItemsController extends AbstractController
{
    private const PAGE = 60;
    private const NAMES = 12;

    public function __construct(private readonly Connection $connection)
    {
    }

    #[Route('/items', name: 'items', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $words = trim(mb_substr($request->query->getString('q'), 0, 100));
        $offset = max(0, min(1_000_000, (int) $request->query->getString('from')));
        $archived = '' !== $request->query->getString('archived');
        $search = ItemSearch::of($words);
        /** @var list<array<string, scalar|null>> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT i.code, i.name, i.category, i.unit, i.gtin, i.sold, i.stocked, i.lot_tracked, i.sales_price,
                i.service, COUNT(o.id) offers, SUM(o.supplier_code = '') uncoded, MIN(s.name) supplier,
                (SELECT COUNT(*) FROM stocking t WHERE t.item_id = i.id) sites, page.total
             FROM (SELECT i.id, COUNT(*) OVER () total FROM item i
                WHERE i.archived_on IS ".($archived ? 'NOT NULL' : 'NULL').' AND '.$search->condition.'
                ORDER BY i.code LIMIT '.self::PAGE.' OFFSET '.$offset.') page
             JOIN item i ON i.id = page.id LEFT JOIN offer o ON o.item_id = i.id AND o.rank = 1
             LEFT JOIN supplier s ON s.id = o.supplier_id
             GROUP BY i.id, page.total ORDER BY i.code',
            $search->values,
        );
        $rows = array_map(
            static fn (array $row): array => [
                'gtin' => is_string($row['gtin']) ? Gtin::of($row['gtin'])->short() : null,
                'unit' => Unit::from((string) $row['unit'])->symbol(),
            ] + $row,
            $rows,
        );
        $model = [
            'rows' => $rows,
            'words' => $words,
            'archived' => $archived,
            'next' => self::PAGE === count($rows) ? $offset + self::PAGE : null,
        ];

        return $request->headers->has('HX-Request')
            ? $this->render('items/_rows.html.twig', $model)
            : $this->render(
                'items/items.html.twig',
                $model + ['count' => $rows[0]['total'] ?? 0],
            );
    }

    /** Items that somebody may mean while they type, for a list below the field. */
    #[Route('/items/names', name: 'item_names', methods: ['GET'], priority: 4)]
    public function names(Request $request, QuickSearch $quick): Response
    {
        $typed = array_filter($request->query->all(), is_string(...));
        $words = trim(mb_substr((string) reset($typed), 0, 60));
        $search = $quick->of($words);

        return $this->render('items/_names.html.twig', [
            'items' => mb_strlen($words) < 2 ? [] : $this->connection->fetchAllAssociative(
                'SELECT i.code, i.name FROM item i WHERE i.archived_on IS NULL AND '.$search->condition.'
                 ORDER BY i.code = :whole DESC, i.name LIMIT '.self::NAMES,
                $search->values + ['whole' => $words],
            ),
        ]);
    }
}
