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
use TallBarrel\Store\Offer\Offer;
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
    public function list(Request $request, StockList $stock, StockFigures $figures, Shell $shell): Response
    {
        $words = trim($request->query->getString('q'));
        $offset = max(0, $request->query->getInt('from'));
        $site = $shell->site()?->id;
        $rows = array_map(static fn (array $row): array => $row + [
            'symbol' => Unit::from($row['unit'])->symbol(),
            'barrel' => Barrel::of((float) $row['held'], (float) $row['coming'], (float) $row['safety'], (float) $row['reorder'], (float) $row['up_to']),
        ], $stock->page($words, $site, $offset));
        $model = ['rows' => $rows, 'words' => $words, 'next' => StockList::PAGE === count($rows) ? $offset + StockList::PAGE : null];

        return $request->headers->has('HX-Request')
            ? $this->render('stock/_rows.html.twig', $model)
            : $this->render('stock/stock.html.twig', $model + ['value' => array_sum($figures->value($site))]);
    }

    #[Route('/items/{code}', name: 'item', requirements: ['code' => '[^/]+'], methods: ['GET'])]
    public function item(string $code, EntityManagerInterface $entities, StockList $stock, Proposals $proposals, ReorderBoard $board, Rates $rates, ClockInterface $clock, Shell $shell, Request $request): Response
    {
        $item = $entities->getRepository(Item::class)->findOneBy(['code' => $code]) ?? throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
        $places = $proposals->ofItem($item->id);
        $site = $request->query->getString('site', $shell->site()->code ?? '');
        $shown = array_values(array_filter($places, static fn (SavedProposal $place): bool => $place->site->code === $site))[0] ?? $places[0] ?? null;
        $now = $stock->now($item->id);
        $today = $clock->now()->setTime(0, 0);
        $inForce = $rates->allOn($today);
        $offers = [];
        foreach ($entities->getRepository(Offer::class)->findBy(['item' => $item], ['rank' => 'ASC']) as $offer) {
            $rate = $inForce[$offer->supplier->currency()->code] ?? null;
            $need = null === $shown ? 1 : max(1, (int) ceil($shown->forecast()->over(28)));
            $offers[] = ['offer' => $offer, 'packs' => $offer->rule()->packsFor($need), 'unitCost' => null === $rate ? null : $offer->at($rate)->unitCost($need), 'need' => $need];
        }

        return $this->render('stock/item.html.twig', [
            'item' => $item,
            'places' => array_map(static function (SavedProposal $place) use ($now): array {
                $levels = $place->explanation();
                $here = $now[$place->site->id];

                return ['place' => $place, 'now' => $here, 'barrel' => Barrel::of($here['held'], $here['coming'], $levels->safetyStock, $levels->reorderPoint, $levels->orderUpTo)];
            }, $places),
            'shown' => null === $shown ? null : $board->why($shown),
            'demand' => null === $shown ? null : DemandChart::of($shown->facts()['sold'], $shown->facts()['marks'], $shown->forecast(), $today),
            'leads' => null === $shown ? null : LeadTimeStrip::of($shown->facts()['met'], $shown->facts()['promisedDays']),
            'own' => $entities->find(ItemPolicy::class, ['item' => $item])?->policy(),
            'kinds' => PolicyKind::cases(),
            'adjustments' => $entities->createQuery('SELECT a FROM '.ForecastAdjustment::class.' a WHERE a.item = :item AND a.until > :today ORDER BY a.id')->setParameters(new ArrayCollection([new Parameter('item', $item), new Parameter('today', $today->format('Y-m-d'))]))->getResult(),
            'balances' => $stock->balances($item->id),
            'movements' => array_map(static fn (array $row): array => ['words' => MovementKind::from($row['kind'])->words()] + $row, $stock->movements($item->id, 25)),
            'orders' => array_map(static fn (array $row): array => ['words' => OrderState::from($row['state'])->words()] + $row, $stock->orders($item->id, 12)),
            'offers' => $offers,
            'today' => $today,
        ]);
    }
}
