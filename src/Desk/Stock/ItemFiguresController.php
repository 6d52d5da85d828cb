<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Desk\Reorder\ReorderBoard;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Sales\SalesByMonth;
use TallBarrel\Work\Keeping\TableFile;

/** What an item's charts show, as tables: part of its page once asked for, a page of its own, or a file. */
#[Route('/items/{code}/{site}', requirements: ['code' => '.+', 'site' => '[^/]+'], priority: 2)]
final class ItemFiguresController extends AbstractController
{
    private const YEARS = 3;

    public function __construct(
        private readonly Proposals $proposals,
        private readonly ReorderBoard $board,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('/days', name: 'item_days', methods: ['GET'])]
    public function days(string $code, string $site, Request $request): Response
    {
        $place = $this->place($code, $site);

        return $this->show($request, 'days', ['place' => $place, 'days' => $this->phased($place)]);
    }

    #[Route('/days.csv', name: 'item_days_file', methods: ['GET'])]
    public function daysFile(string $code, string $site, TableFile $table): Response
    {
        $rows = TimePhased::table($this->phased($this->place($code, $site)));

        return new Response($table->write($rows), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                'attachment',
                sprintf('%s-%s-days.csv', $code, $site),
                'days.csv',
            ),
        ]);
    }

    #[Route('/use', name: 'item_use', methods: ['GET'])]
    public function use(string $code, string $site, Request $request, SalesByMonth $sales): Response
    {
        $place = $this->place($code, $site);
        $today = $this->clock->now();
        $since = $today->setDate((int) $today->format('Y') - self::YEARS + 1, 1, 1);

        return $this->show($request, 'use', [
            'place' => $place,
            'years' => $sales->of($place->item, $place->site, $since),
            'now' => $today,
        ]);
    }

    /** @return list<PhasedDay> */
    private function phased(SavedProposal $place): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $units = $place->units();

        return TimePhased::of(
            $this->board->projection($place),
            $place->comingOn($today),
            $place->evidence($today)->planned,
            sprintf('proposed, %s %s', $units->strippedOfTrailingZeros(), $place->item->unit->symbol()),
            $today,
        );
    }

    /** @param array<string, mixed> $model */
    private function show(Request $request, string $which, array $model): Response
    {
        return $this->render(
            sprintf($request->headers->has('HX-Request') ? 'stock/_%s.html.twig' : 'stock/%s.html.twig', $which),
            $model,
        );
    }

    private function place(string $code, string $site): SavedProposal
    {
        return $this->proposals->at($code, $site) ??
            throw $this->createNotFoundException(sprintf('Nothing is planned for %s at %s.', $code, $site));
    }
}
