<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Order\OpenLines;
use TallBarrel\Store\Stock\StockFigures;
use TallBarrel\Store\Stock\StockList;
use TallBarrel\Store\Stock\StockView;

final class StockController extends AbstractController
{
    #[Route('/stock', name: 'stock', methods: ['GET'])]
    public function list(
        Request $request,
        StockList $stock,
        OpenLines $open,
        StockFigures $figures,
        Shell $shell,
        ClockInterface $clock,
    ): Response {
        $words = trim($request->query->getString('q'));
        $offset = max(0, NumbersInAddresses::read($request, 'from'));
        $site = $shell->site()?->id;
        $view = StockView::tryFrom($request->query->getString('show')) ?? StockView::All;
        $page = $stock->page($words, $site, $offset, $view);
        $open = $open->byItem(array_column($page, 'id'), $site, $clock->now()->setTime(0, 0));
        $rows = array_map(static function (array $row) use ($open): array {
            $coming = ($open[$row['id']] ?? null)?->units()->toFloat() ?? 0.0;
            $barrel = Barrel::of(
                (float) $row['held'],
                $coming,
                (float) $row['safety'],
                (float) $row['reorder'],
                (float) $row['up_to'],
            );

            return $row + ['symbol' => Unit::from($row['unit'])->symbol(), 'coming' => $coming, 'barrel' => $barrel];
        }, $page);
        $model = [
            'rows' => $rows,
            'words' => $words,
            'view' => $view,
            'next' => StockList::PAGE === count($rows) ? $offset + StockList::PAGE : null,
        ];

        return $request->headers->has('HX-Request')
            ? $this->render('stock/_rows.html.twig', $model)
            : $this->render('stock/stock.html.twig', $model + [
                'value' => $figures->value($site),
                'over' => $figures->over($site),
            ]);
    }

    #[Route('/items/{code}', name: 'item', requirements: ['code' => '.+'], methods: ['GET'])]
    public function item(string $code, Request $request, ItemPage $page): Response
    {
        $item = $page->find($code) ?? throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
        $site = $request->query->getString('site');

        return $this->render('stock/item.html.twig', $page->of($item, '' === $site ? null : $site));
    }
}
