<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Query\Parameter;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\DemandChart;
use TallBarrel\Desk\Drawing\LeadTimeStrip;
use TallBarrel\Desk\Reorder\ReorderBoard;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Order\OpenLines;
use TallBarrel\Store\Planning\ForecastAdjustment;
use TallBarrel\Store\Planning\ItemPolicy;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\StockFigures;
use TallBarrel\Store\Stock\StockList;

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
        $offset = max(0, $request->query->getInt('from'));
        $site = $shell->site()?->id;
        $page = $stock->page($words, $site, $offset);
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
            'next' => StockList::PAGE === count($rows) ? $offset + StockList::PAGE : null,
        ];

        return $request->headers->has('HX-Request')
            ? $this->render('stock/_rows.html.twig', $model)
            : $this->render('stock/stock.html.twig', $model + ['value' => array_sum($figures->value($site))]);
    }

    #[Route('/items/{code}', name: 'item', requirements: ['code' => '[^/]+'], methods: ['GET'])]
    public function item(
        string $code,
        EntityManagerInterface $entities,
        Offers $allOffers,
        StockList $stock,
        OpenLines $open,
        Proposals $proposals,
        ReorderBoard $board,
        Rates $rates,
        ClockInterface $clock,
        Shell $shell,
        Request $request,
    ): Response {
        /** @var list<Item|ItemPolicy|null> $found */
        $found = $entities
            ->createQuery(
                sprintf(
                    'SELECT i, p FROM %s i LEFT JOIN %s p WITH p.item = i WHERE i.code = :code',
                    Item::class,
                    ItemPolicy::class,
                ),
            )
            ->setParameter('code', $code)
            ->getResult();
        $item = $found[0] ?? null;
        if (!$item instanceof Item) {
            throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
        }
        $own = $found[1] ?? null;
        $places = $proposals->ofItem($item->id);
        $site = $request->query->getString('site', $shell->site()->code ?? '');
        $shown =
            array_values(
                array_filter($places, static fn (SavedProposal $place): bool => $place->site->code === $site),
            )[0] ??
            ($places[0] ?? null);
        $today = $clock->now()->setTime(0, 0);
        $held = $stock->held($item->id);
        $open = $open->bySite([$item->id], $today);
        $inForce = $rates->allOn($today);
        $offers = [];
        $ofItem = $allOffers->ofItem($item);
        foreach ($ofItem as $offer) {
            $rate = $inForce[$offer->supplier->currency()->code] ?? null;
            $need = null === $shown ? 1 : max(1, (int) ceil($shown->forecast()->over(28)));
            $offers[] = [
                'offer' => $offer,
                'packs' => $offer->rule()->packsFor($need),
                'unitCost' => null === $rate ? null : $offer->at($rate)->unitCost($need),
                'need' => $need,
            ];
        }

        $evidence = $shown?->evidence($today);

        return $this->render('stock/item.html.twig', [
            'item' => $item,
            'places' => array_map(static function (SavedProposal $place) use ($held, $open): array {
                $here = $held[$place->site->id] ?? 0.0;
                $coming = ($open[$place->item->id.':'.$place->site->id] ?? null)?->units()->toFloat() ?? 0.0;

                return [
                    'place' => $place,
                    'now' => ['held' => $here, 'coming' => $coming],
                    'barrel' => Barrel::of(
                        $here,
                        $coming,
                        $place->safetyStock,
                        $place->reorderPoint,
                        $place->orderUpTo,
                    ),
                ];
            }, $places),
            'shown' => null === $shown ? null : $board->why($shown, $ofItem),
            'demand' => null === $shown || null === $evidence
                    ? null
                    : DemandChart::of($evidence->sold, $evidence->marks, $shown->forecast(), $today),
            'leads' => null === $evidence ? null : LeadTimeStrip::of($evidence->met, $evidence->promisedDays),
            'own' => $own instanceof ItemPolicy ? $own->policy() : null,
            'kinds' => PolicyKind::cases(),
            'adjustments' => $entities
                ->createQuery(
                    'SELECT a FROM '.
                        ForecastAdjustment::class.
                        ' a WHERE a.item = :item AND a.until > :today ORDER BY a.id',
                )
                ->setParameters(
                    new ArrayCollection([
                        new Parameter('item', $item),
                        new Parameter('today', $today->format('Y-m-d')),
                    ]),
                )
                ->getResult(),
            'balances' => $stock->balances($item->id),
            'movements' => array_map(
                static fn (array $row): array => ['words' => MovementKind::from($row['kind'])->words()] + $row,
                $stock->movements($item->id, 25),
            ),
            'orders' => array_map(
                static fn (array $row): array => ['words' => OrderState::from($row['state'])->words()] + $row,
                $stock->orders($item->id, 12),
            ),
            'offers' => $offers,
            'today' => $today,
        ]);
    }
}
