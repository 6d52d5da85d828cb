<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Doctrine\DBAL\Connection;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Quantity\Gtin;

/** The catalogue: every item and what it still lacks before it can be ordered. An item's own page is at Stock. */
final class ItemsController extends AbstractController
{
    private const PAGE = 60;

    #[Route('/items', name: 'items', methods: ['GET'])]
    public function list(Request $request, Connection $connection): Response
    {
        $words = trim($request->query->getString('q'));
        $offset = max(0, $request->query->getInt('from'));
        /** @var list<array<string, scalar|null>> $rows */
        $rows = $connection->fetchAllAssociative(
            "SELECT i.code, i.name, i.category, i.unit, i.gtin, i.sold, i.lot_tracked, i.sales_price, i.service,
                COUNT(o.id) offers, SUM(o.supplier_code = '') uncoded, MIN(s.name) supplier,
                    (SELECT COUNT(*) FROM stocking t WHERE t.item_id = i.id) sites,
                    COUNT(*) OVER () total
             FROM item i LEFT JOIN offer o ON o.item_id = i.id AND o.rank = 1
             LEFT JOIN supplier s ON s.id = o.supplier_id
             WHERE :words = '' OR i.code LIKE :like OR i.name LIKE :like OR i.category LIKE :like OR i.gtin LIKE :like
             GROUP BY i.id ORDER BY i.code LIMIT ".
                self::PAGE.
                ' OFFSET '.
                $offset,
            ['words' => $words, 'like' => '%'.addcslashes($words, '%_\\').'%'],
        );
        $rows = array_map(
            static fn (array $row): array => [
                'gtin' => is_string($row['gtin']) ? Gtin::of($row['gtin'])->short() : null,
            ] + $row,
            $rows,
        );
        $model = [
            'rows' => $rows,
            'words' => $words,
            'next' => self::PAGE === count($rows) ? $offset + self::PAGE : null,
        ];

        return $request->headers->has('HX-Request')
            ? $this->render('items/_rows.html.twig', $model)
            : $this->render(
                'items/items.html.twig',
                $model + ['count' => $connection->fetchOne('SELECT COUNT(*) FROM item')],
            );
    }
}
