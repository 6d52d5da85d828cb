<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Compare;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Sourcing\BuyAsCompared;

/** Suppliers side by side: what waits to be compared, and the board of one item. */
#[Route('/compare')]
#[AboutMoney]
final class CompareController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Board $board,
        private readonly Proposals $proposals,
        private readonly Shell $shell,
    ) {
    }

    #[Route('', name: 'compare', methods: ['GET'])]
    public function list(Worthwhile $worthwhile, Rounds $rounds): Response
    {
        return $this->render('compare/compare.html.twig', [
            'rows' => $worthwhile->of($this->shell->site()),
            'most' => Worthwhile::MOST,
            'rounds' => $rounds->rows(8),
            'chosen' => count($this->board->chosenWith(null, '')),
        ]);
    }

    /** Finds the item somebody wants to compare. */
    #[Route('/find', name: 'compare_find', methods: ['GET'])]
    public function find(Request $request): Response
    {
        $code = ItemCode::chosen($request->query->getString('item'));
        $item =
            $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
            $this->entities->getRepository(Item::class)->findOneBy(['name' => $code]);
        if (null === $item) {
            $this->addFlash('watch', sprintf('There is no item “%s”; type its code or its whole name.', $code));

            return $this->redirectToRoute('compare');
        }

        return $this->redirectToRoute('compare_item', ['code' => $item->code]);
    }

    #[Route('/items/{code}', name: 'compare_item', requirements: ['code' => '.+'], methods: ['GET'])]
    public function item(string $code, Request $request, ItemComparison $comparison): Response
    {
        $item =
            $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
        $fields = Fields::query($request);
        $units = $fields->quantity('units', $fields->text('units'));
        if (null !== $units && !$units->isPositive()) {
            $fields->refuse(
                'units',
                sprintf('“%s” of it cost nothing; type a quantity above 0.', $fields->text('units')),
            );
            $units = null;
        }
        $for = $this->proposal(NumbersInAddresses::read($request, 'for'), $item);
        $model = $comparison->of($item, $for, $units) + ['fields' => $fields];

        return $this->render(
            'board' === $request->headers->get('HX-Target') ? 'compare/_board.html.twig' : 'compare/item.html.twig',
            $model,
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    #[Route('/items/{code}/buy', name: 'compare_buy', requirements: ['code' => '.+'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function buy(string $code, Request $request, BuyAsCompared $buying, #[CurrentUser] Person $person): Response
    {
        $item =
            $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
        $fields = Fields::of($request);
        $units = $fields->quantity('units', $fields->text('units')) ?? BigDecimal::zero();
        $parts = [];
        try {
            foreach ([['offer', 'units'], ['second', 'second_units']] as [$name, $quantity]) {
                $offer = $this->entities->find(Offer::class, (int) $fields->text($name));
                $of = $fields->quantity($quantity, $fields->text($quantity));
                if (null !== $offer && null !== $of && $of->isPositive()) {
                    $parts[] = [$offer, $of];
                }
            }
            if ([] === $parts || !$units->isPositive()) {
                throw new Refused(
                    $fields->errors()['units'] ?? 'That supplier does not offer it any more; look once more.',
                );
            }
            $for =
                $this->proposal((int) $fields->text('for'), $item) ??
                (array_values(
                    array_filter(
                        $this->proposals->ofItem($item->id),
                        static fn (SavedProposal $place): bool => null === $place->draft() && $place->listed,
                    ),
                )[0] ??
                    null);
            if (null !== $for && 1 === count($parts)) {
                $buying->intoProposal($for, $parts[0][0], $parts[0][1]);
                $this->entities->flush();
                $this->addFlash(
                    'fine',
                    sprintf(
                        '%s for %s now goes to %s, %s %s.',
                        $item->name(),
                        $for->site->name(),
                        $parts[0][0]->supplier->name(),
                        $for->units(),
                        $item->unit->symbol(),
                    ),
                );

                return $this->redirectToRoute('reorder', ['why' => $for->id]);
            }
            $site = $for->site ?? ($this->shell->site() ?? $this->shell->sites()[0]);
            $orders = $this->entities->wrapInTransaction(function () use (
                $parts,
                $site,
                $buying,
                $person,
                $for,
            ): array {
                $orders = [];
                foreach ($parts as [$offer, $of]) {
                    $orders[] = $buying->intoDraft($offer, $site, $of, $person);
                }
                $for?->drafted($orders[0]);

                return $orders;
            });
            $this->addFlash(
                'fine',
                sprintf(
                    '%s is on %s.',
                    $item->name(),
                    implode(
                        ' and ',
                        array_map(
                            static fn ($order): string => $order->number.' for '.$order->supplier->name(),
                            $orders,
                        ),
                    ),
                ),
            );

            return $this->redirectToRoute('order', ['number' => $orders[0]->number]);
        } catch (InvalidValue|Refused $problem) {
            $this->addFlash('short', $item->code.': '.$problem->getMessage());
        }

        return $this->redirectToRoute('compare_item', [
            'code' => $code,
            'units' => $fields->text('units'),
            'for' => $fields->text('for'),
        ]);
    }

    private function proposal(int $id, Item $item): ?SavedProposal
    {
        $proposal = $id > 0 ? $this->proposals->find($id) : null;

        return null !== $proposal && $proposal->item === $item && null === $proposal->draft() ? $proposal : null;
    }
}
