<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;

#[Route('/reorder')]
final class ReorderController extends AbstractController
{
    public function __construct(private readonly ReorderBoard $board, private readonly Proposals $proposals, private readonly Shell $shell, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('', name: 'reorder', methods: ['GET'])]
    public function board(Request $request): Response
    {
        return $this->page($request, Fields::none());
    }

    #[Route('/calculate', name: 'reorder_calculate', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function calculate(Request $request, Planner $planner): Response
    {
        $cover = $request->request->getString('cover');
        $planner->run(in_array($cover, ['7', '14', '28', '56'], true) ? (int) $cover : null);

        return $this->redirectToRoute('reorder');
    }

    #[Route('/{id}/why', name: 'reorder_why', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function why(int $id): Response
    {
        return $this->render('reorder/_why.html.twig', $this->board->why($this->proposal($id)));
    }

    /** One quantity or one tick changed: answers with the row, the group's heading, the why and the strip. */
    #[Route('/{id}', name: 'reorder_change', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_BUY')]
    public function change(int $id, Request $request): Response
    {
        $proposal = $this->proposal($id);
        $fields = Fields::of($request);
        $typed = $fields->each('quantity')[$id] ?? '';
        // A quantity typed ticks its row; a tick alone leaves the quantity as it is.
        $error = $this->apply($proposal, $typed, str_starts_with($request->headers->get('HX-Trigger-Name', ''), 'quantity') || isset($fields->each('chosen')[$id]));
        $row = $this->board->row($proposal);
        if (null === $error) {
            $this->entities->flush();
        }
        if (!$request->headers->has('HX-Request')) {
            $this->addFlash(null === $error ? 'fine' : 'short', $error ?? sprintf('%s is saved.', $proposal->item->code));

            return $this->redirectToRoute('reorder', ['why' => $id]);
        }
        if (null !== $error) {
            $row = $row->refused($typed, $error);
        }
        $groups = $this->board->groups($this->shell->site()?->id, 'rush');

        return $this->render('reorder/_changed.html.twig', [
            'row' => $row,
            'group' => array_values(array_filter($groups, static fn (ReorderGroup $group): bool => $group->supplier === $proposal->offer?->supplier))[0] ?? null,
            'summary' => $this->board->summary($groups),
            'why' => $this->board->why($proposal),
        ], new Response(status: null === $error ? 200 : 422));
    }

    #[Route('/draft', name: 'reorder_draft', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function draft(Request $request, Drafting $drafting, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $chosen = $fields->each('chosen');
        foreach ($fields->each('quantity') as $id => $typed) {
            $proposal = $this->proposals->find($id);
            if (null === $proposal || null !== $proposal->draft()) {
                continue;
            }
            $error = $this->apply($proposal, $typed, isset($chosen[$id]));
            if (null !== $error) {
                $fields->refuse((string) $id, $error);
            }
        }
        if (!$fields->isGood()) {
            return $this->page($request, $fields);
        }
        $this->entities->flush();
        try {
            $orders = $drafting->draft($person, $this->shell->site()?->id);
        } catch (Refused $refused) {
            $this->addFlash('watch', $refused->getMessage());

            return $this->redirectToRoute('reorder');
        }
        $this->addFlash('fine', sprintf('Drafted: %s.', implode(', ', array_map(static fn (PurchaseOrder $order): string => $order->number.' for '.$order->supplier->name(), $orders))));

        return 1 === count($orders) ? $this->redirectToRoute('order', ['number' => $orders[0]->number]) : $this->redirectToRoute('orders');
    }

    private function apply(SavedProposal $proposal, string $typed, bool $chosen): ?string
    {
        try {
            $packs = '' === $typed ? $proposal->packs()->multipliedBy(0) : Quantity::read($typed);
            if (!$packs->isEqualTo($proposal->packs())) {
                $proposal->order($packs);
            }
            if ($chosen !== $proposal->isChosen() && $packs->isPositive()) {
                $proposal->choose($chosen);
            }
        } catch (InvalidValue|Refused $problem) {
            return $problem->getMessage();
        }

        return null;
    }

    private function page(Request $request, Fields $fields): Response
    {
        $sort = $request->query->getString('sort', 'rush');
        $sort = isset(ReorderBoard::SORTS[$sort]) ? $sort : 'rush';
        $groups = $this->board->groups($this->shell->site()?->id, $sort);
        $shown = $request->query->getInt('why');
        $proposal = $shown > 0 ? $this->proposals->find($shown) : (isset($groups[0]->rows[0]) ? $groups[0]->rows[0]->proposal : null);

        return $this->render('reorder/reorder.html.twig', [
            'groups' => $groups,
            'summary' => $this->board->summary($groups),
            'why' => null === $proposal ? null : $this->board->why($proposal),
            'sort' => $sort,
            'sorts' => ReorderBoard::SORTS,
            'run' => $this->board->lastRun(),
            'outdated' => $this->board->isOutdated(),
            'fields' => $fields,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }

    private function proposal(int $id): SavedProposal
    {
        return $this->proposals->find($id) ?? throw $this->createNotFoundException('The board was calculated anew meanwhile; reload it.');
    }
}
