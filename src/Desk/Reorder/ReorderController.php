<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Business\WaitingCounts;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferName;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Planning\ChangeProposal;
use TallBarrel\Work\Planning\DraftOrders;
use TallBarrel\Work\Planning\FillUpOrder;
use TallBarrel\Work\Planning\RunPlanning;

#[Route('/reorder')]
#[AboutMoney]
final class ReorderController extends AbstractController
{
    public function __construct(
        private readonly ReorderBoard $board,
        private readonly Board $standing,
        private readonly ChangeProposal $change,
        private readonly Proposals $proposals,
        private readonly WaitingCounts $waiting,
        private readonly Shell $shell,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    #[Route('', name: 'reorder', methods: ['GET'])]
    public function board(Request $request): Response
    {
        return $this->page($request, Fields::none());
    }

    /** The rows that follow in one supplier's group. */
    #[Route('/rows', name: 'reorder_rows', methods: ['GET'])]
    public function rows(Request $request): Response
    {
        $supplier = $this->entities
            ->getRepository(Supplier::class)
            ->findOneBy(['code' => $request->query->getString('group')]);
        $from = max(0, NumbersInAddresses::read($request, 'from'));
        [$sort, $words] = $this->view($request);

        return $this->render('reorder/_rows.html.twig', [
            'group' => $this->board->groupOf($supplier, $this->shell->site(), $sort, $words, $from),
            'from' => $from,
            'sort' => $sort,
            'words' => $words,
            'fields' => Fields::none(),
            'why' => null,
            'head' => 0 === $from,
        ]);
    }

    #[Route('/calculate', name: 'reorder_calculate', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function calculate(Request $request, RunPlanning $planning): Response
    {
        $fields = Fields::of($request);
        if (true === $this->proposals->latestRun()?->isRunning()) {
            $this->addFlash('watch', 'A calculation is under way already.');

            return $this->redirectToRoute('reorder');
        }
        $options = $this->options($fields);
        if (null === $options || !$fields->isGood()) {
            return $this->page($request, $fields);
        }
        $planning->begin($options);

        return $this->redirectToRoute('reorder');
    }

    private function options(Fields $fields): ?PlanningOptions
    {
        $start = $fields->text('start', missing: PlanningOptions::DUE);
        $typed = $fields->text(PlanningOptions::VALUE === $start ? 'value' : 'days');
        $list = $fields->text('list');

        return $fields->attempt(
            'figure',
            static fn (): PlanningOptions => PlanningOptions::of(
                $start,
                '' === $typed ? null : $fields->numerals->price($typed)->toFloat(),
                1 === preg_match('/^\d+$/', $list) ? (int) $list : null,
                $fields->text('history', missing: PlanningOptions::ALL),
                $fields->day('from', $fields->text('from'))?->format('Y-m-d'),
                $fields->day('to', $fields->text('to'))?->format('Y-m-d'),
                'no' !== $fields->text('stock'),
                'no' !== $fields->text('whole'),
            ),
        );
    }

    /** How far the calculation is; once it is through, the page is loaded anew. */
    #[Route('/progress', name: 'reorder_progress', methods: ['GET'])]
    public function progress(): Response
    {
        $run = $this->proposals->latestRun();
        $moving = $this->waiting->at(null)->moved;
        $response = $this->render('reorder/_progress.html.twig', ['latest' => $run, 'moving' => $moving]);
        if (0 === $moving && true !== $run?->isRunning()) {
            $response->headers->set('HX-Refresh', 'true');
        }

        return $response;
    }

    #[Route('/paper', name: 'reorder_paper', methods: ['GET'])]
    public function paper(Request $request): Response
    {
        [$sort] = $this->view($request);
        $only = NumbersInAddresses::read($request, 'only');
        $proposal = $only > 0 ? $this->proposal($only) : null;

        return $this->render('reorder/paper.html.twig', [
            'groups' => null === $proposal ? $this->board->groups($this->shell->site(), $sort, '', 400) : [],
            'whys' => null === $proposal ? [] : [$this->board->why($proposal)],
            'run' => $this->board->lastRun(),
        ]);
    }

    #[Route('/{id}/why', name: 'reorder_why', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function why(int $id): Response
    {
        return $this->render('reorder/_why.html.twig', ['of' => $this->board->why($this->proposal($id))]);
    }

    /** One quantity or one tick changed: answers with the row, the group's heading, the why and the strip. */
    #[Route('/{id}', name: 'reorder_change', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_BUY')]
    public function change(int $id, Request $request): Response
    {
        $fields = Fields::of($request);
        $typed = $fields->each('quantity')[$id] ?? '';
        // A quantity typed ticks its row; a tick alone leaves the quantity as it is.
        $chosen =
            isset($fields->each('chosen')[$id])
            || str_starts_with($request->headers->get('HX-Trigger-Name', ''), 'quantity');

        return $this->answer($request, $id, $typed, function (SavedProposal $proposal) use (
            $typed,
            $chosen,
            $fields,
        ): void {
            $this->change->order(
                $proposal,
                '' === $typed ? BigDecimal::zero() : $fields->numerals->quantity($typed),
                $chosen,
            );
        });
    }

    /** All of one supplier's rows ticked, or none. */
    #[Route('/group/{code}', name: 'reorder_group', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function group(string $code, Request $request): Response
    {
        $supplier =
            $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException('There is no such supplier.');
        $this->standing->chooseAll($supplier, $this->shell->site(), $request->query->getBoolean('all'));

        if (!$request->headers->has('HX-Request')) {
            return $this->redirectToRoute('reorder');
        }

        return $this->render('reorder/_group.html.twig', [
            'group' => $this->board->groupOf($supplier, $this->shell->site(), 'rush'),
            'first' => false,
            'fields' => Fields::none(),
            'why' => null,
            'sort' => 'rush',
            'words' => '',
            'summary' => $this->board->summary($this->shell->site(), $this->view($request)[1]),
            'alone' => true,
        ]);
    }

    #[Route('/{id}/supplier', name: 'reorder_supplier', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function supplier(int $id, Request $request): Response
    {
        $fields = Fields::of($request);
        $proposal = $this->proposal($id);
        $offer = $this->entities->find(Offer::class, (int) $fields->text('offer'));
        try {
            if (null === $offer || $offer->item !== $proposal->item || $offer === $proposal->offer()) {
                throw new Refused('That supplier does not offer it any more.');
            }
            if ('' === $fields->text('packs')) {
                $this->change->buyFrom($proposal, $offer);
                $this->addFlash('fine', sprintf('%s now goes to %s.', $proposal->item->code, $offer->supplier->name()));
            } else {
                $this->change->split($proposal, $offer, $fields->numerals->quantity($fields->text('packs')));
                $this->addFlash(
                    'fine',
                    sprintf('%s is split: the rest from %s.', $proposal->item->code, $offer->supplier->name()),
                );
            }
            $this->entities->flush();
        } catch (InvalidValue|Refused $problem) {
            $this->addFlash('short', $proposal->item->code.': '.$problem->getMessage());
        }

        return $this->redirectToRoute('reorder', ['why' => $id]);
    }

    #[Route('/{id}/later', name: 'reorder_later', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function later(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $proposal = $this->proposal($id);
        $until = $fields->day('until', $fields->text('until')) ?? $this->board->why($proposal)->putOffTo;
        $fields->attempt('until', fn () => $this->change->putOff($proposal, $until, $fields->text('reason'), $person));
        if ($fields->isGood()) {
            $this->entities->flush();
            $this->addFlash(
                'fine',
                sprintf(
                    '%s at %s is put off until %s.',
                    $proposal->item->code,
                    $proposal->site->name(),
                    $until->format('D j M'),
                ),
            );
        } else {
            $this->addFlash('short', $proposal->item->code.': '.implode(' ', $fields->errors()));
        }

        return $this->redirectToRoute('reorder', $fields->isGood() ? [] : ['why' => $id]);
    }

    #[Route('/take-up/{item}/{site}', name: 'reorder_take_up', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function takeUp(string $item, string $site): Response
    {
        $proposal =
            $this->proposals->at($item, $site) ??
            throw $this->createNotFoundException(sprintf('Nothing is planned for %s at %s.', $item, $site));
        $this->change->takeUp($proposal);
        $this->entities->flush();

        return $this->redirectToRoute('reorder', ['why' => $proposal->id]);
    }

    /** Adds what makes a supplier's order reach its minimum, free freight or a full load. */
    #[Route('/fill/{code}', name: 'reorder_fill', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function fill(string $code, FillUpOrder $fillUp): Response
    {
        $supplier =
            $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException('There is no such supplier.');
        $group = $this->board->groupOf($supplier, $this->shell->site(), 'rush');
        if (null === $group || null === $group->advice) {
            $this->addFlash('watch', sprintf('%s asks for nothing more now.', $supplier->name()));
        } else {
            $lines = $fillUp->fill($group->advice->order);
            $this->addFlash(
                'fine',
                sprintf(
                    '%d %s to %s’s order.',
                    $lines,
                    1 === $lines ? 'line was added or raised' : 'lines were added or raised',
                    $supplier->name(),
                ),
            );
        }

        return $this->redirectToRoute('reorder');
    }

    #[Route('/draft', name: 'reorder_draft', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function draft(Request $request, DraftOrders $drafting, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $chosen = $fields->each('chosen');
        foreach ($fields->each('quantity') as $id => $typed) {
            $proposal = $this->proposals->find($id);
            if (null === $proposal || null !== $proposal->draft()) {
                continue;
            }
            try {
                $packs = '' === $typed ? BigDecimal::zero() : $fields->numerals->quantity($typed);
                $this->change->order($proposal, $packs, isset($chosen[$id]));
            } catch (InvalidValue|Refused $problem) {
                $fields->refuse((string) $id, $problem->getMessage());
            }
        }
        if (!$fields->isGood()) {
            return $this->page($request, $fields);
        }
        $this->entities->flush();
        try {
            // What a filter hides is not drafted: nobody has looked at it.
            $words = $fields->text('q', 60);
            $site = $this->shell->site();
            $orders = $drafting->draft(
                $person,
                $site?->id,
                '' === $words ? null : $this->standing->chosenWith($site, $words),
            );
        } catch (Refused $refused) {
            $this->addFlash('watch', $refused->getMessage());

            return $this->redirectToRoute('reorder');
        }
        $this->addFlash(
            'fine',
            sprintf(
                'Drafted: %s.',
                implode(
                    ', ',
                    array_map(
                        static fn (PurchaseOrder $order): string => $order->number.' for '.$order->supplier->name(),
                        $orders,
                    ),
                ),
            ),
        );

        return 1 === count($orders)
            ? $this->redirectToRoute('order', ['number' => $orders[0]->number])
            : $this->redirectToRoute('drafts');
    }

    /** @param callable(SavedProposal): void $act */
    private function answer(Request $request, int $id, string $typed, callable $act): Response
    {
        $proposal = $this->proposal($id);
        $error = null;
        try {
            $act($proposal);
            $this->entities->flush();
        } catch (InvalidValue|Refused $problem) {
            $error = $problem->getMessage();
        }
        if (!$request->headers->has('HX-Request')) {
            $this->addFlash(
                null === $error ? 'fine' : 'short',
                $error ?? sprintf('%s is saved.', $proposal->item->code),
            );

            return $this->redirectToRoute('reorder', ['why' => $id]);
        }
        $why = $this->board->why($proposal);

        return $this->render(
            'reorder/_changed.html.twig',
            [
                'row' => null === $error ? $why->row : $why->row->refused($typed, $error),
                'group' => $this->board->headOf($proposal->offer()?->supplier, $this->shell->site(), $why->arrival),
                'summary' => $this->board->summary($this->shell->site(), $this->view($request)[1]),
                'why' => $why,
            ],
            new Response(status: null === $error ? 200 : 422),
        );
    }

    private function page(Request $request, Fields $fields): Response
    {
        [$sort, $words] = $this->view($request);
        $site = $this->shell->site();
        $groups = $this->board->groups($site, $sort, $words, $fields->isGood() ? ReorderBoard::PAGE : \PHP_INT_MAX);
        $shown = NumbersInAddresses::read($request, 'why');
        $first = $groups[0]->rows[0]->line->id ?? 0;
        $proposal = $this->proposals->firstOf($shown > 0 ? [$shown, $first] : [$first]);
        $run = $this->board->lastRun();
        $beside = $this->board->beside($proposal);

        return $this->render(
            $request->headers->has('HX-Request') && 'board' === $request->headers->get('HX-Target')
                ? 'reorder/_board.html.twig'
                : 'reorder/reorder.html.twig',
            [
                'groups' => $groups,
                'summary' => $this->board->summary($site, $words, $beside),
                'why' => null === $proposal
                    ? null
                    : $this->board->why($proposal, OfferName::in($beside), self::rowOf($proposal, $groups)),
                'sort' => $sort,
                'sorts' => ReorderBoard::SORTS,
                'words' => $words,
                'run' => $run,
                'options' => $run?->options() ?? PlanningOptions::usual(),
                'starts' => PlanningOptions::STARTS,
                'histories' => PlanningOptions::HISTORIES,
                'lists' => OrderLists::namesIn($beside),
                'latest' => $this->board->latestRun(),
                'moving' => $this->waiting->at($site)->moved,
                'putOff' => $this->waiting->at($site)->putOff > 0 ? $this->proposals->putOff($site) : [],
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /** @param list<ReorderGroup> $groups */
    private static function rowOf(SavedProposal $proposal, array $groups): ?ReorderRow
    {
        foreach ($groups as $group) {
            foreach ($group->rows as $row) {
                if ($row->line->id === $proposal->id) {
                    return $row;
                }
            }
        }

        return null;
    }

    /** @return array{string, string} order of the rows, words they are filtered by */
    private function view(Request $request): array
    {
        $sort = $request->query->getString('sort', 'rush');
        $words = $request->query->getString('q');
        if ($request->isMethod('POST')) {
            // A change of one row stands on the page as it is filtered.
            parse_str((string) parse_url((string) $request->headers->get('HX-Current-URL'), \PHP_URL_QUERY), $shown);
            $words = is_string($shown['q'] ?? null) ? $shown['q'] : $request->request->getString('q');
        }

        return [isset(ReorderBoard::SORTS[$sort]) ? $sort : 'rush', mb_substr(trim($words), 0, 60)];
    }

    private function proposal(int $id): SavedProposal
    {
        return $this->proposals->find($id) ??
            throw $this->createNotFoundException('The board was calculated anew meanwhile; reload it.');
    }
}
