<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Compare;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Work\Sourcing\BuyAsCompared;
use TallBarrel\Work\Sourcing\ShareOutBasket;

/** All that is chosen on Reorder, or of an order list, shared out among the suppliers so that it costs least. */
#[Route('/compare/basket')]
#[AboutMoney]
final class BasketController extends AbstractController
{
    public function __construct(
        private readonly ShareOutBasket $plan,
        private readonly Board $board,
        private readonly OrderLists $lists,
        private readonly Shell $shell,
    ) {
    }

    #[Route('', name: 'basket', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $all = $this->lines(NumbersInAddresses::read($request, 'list'));
        $proposals = array_slice($all, 0, ShareOutBasket::MOST_LINES);
        [$pins, $forbidden] = $this->wishes(Fields::query($request));
        $start = microtime(true);
        $plan = [] === $proposals ? [] : $this->plan->of($proposals, $pins, $forbidden);

        return $this->render(
            'compare/basket.html.twig',
            [] === $proposals
                ? ['proposals' => []]
                : $plan + [
                    'cut' => count($all) - count($proposals),
                    'took' => microtime(true) - $start,
                    'list' => NumbersInAddresses::read($request, 'list'),
                    'lists' => $this->lists->names(),
                ],
        );
    }

    /** Gives each line to whom the award on the page gave it. */
    #[Route('', name: 'basket_apply', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function apply(Request $request, BuyAsCompared $buying, EntityManagerInterface $entities): Response
    {
        $fields = Fields::of($request);
        $proposals = array_slice($this->lines((int) $fields->text('list')), 0, ShareOutBasket::MOST_LINES);
        [, $offers] = $this->plan->basket($proposals);
        $changed = 0;
        try {
            foreach ($proposals as $proposal) {
                $supplier = $fields->each('to')[$proposal->id] ?? '';
                if ('' === $supplier) {
                    continue;
                }
                $offer =
                    $offers[(string) $proposal->id][$supplier] ??
                    throw new Refused(
                        sprintf(
                            '%s is no longer offered by %s. Look at the basket once more.',
                            $proposal->item->code,
                            $supplier,
                        ),
                    );
                $changed += $proposal->offer() === $offer ? 0 : 1;
                $second = $fields->each('second')[$proposal->id] ?? '';
                if ('' === $second) {
                    $buying->intoProposal($proposal, $offer, $proposal->units());
                    continue;
                }
                $other = $offers[(string) $proposal->id][$second] ?? throw new Refused(
                    sprintf('%s is no longer offered by %s. Look again.', $proposal->item->code, $second),
                );
                $buying->inTwoParts(
                    $proposal,
                    [$offer, self::part($fields, 'firstUnits', $proposal)],
                    [$other, self::part($fields, 'secondUnits', $proposal)],
                );
            }
            $entities->flush();
            $this->addFlash(
                'fine',
                sprintf('%d %s changed supplier; all of it is chosen.', $changed, 1 === $changed ? 'line' : 'lines'),
            );
        } catch (InvalidValue|Refused $problem) {
            $entities->clear();
            $this->addFlash('short', $problem->getMessage());

            return $this->redirectToRoute(
                'basket',
                '' === $fields->text('list') ? [] : ['list' => $fields->text('list')],
            );
        }

        return $this->redirectToRoute('reorder');
    }

    /** @throws Refused */
    private static function part(Fields $fields, string $name, SavedProposal $proposal): BigDecimal
    {
        return $fields->quantity($name, $fields->each($name)[$proposal->id] ?? '') ?? throw new Refused(
            sprintf('The parts of %s are no numbers. Look at the basket once more.', $proposal->item->code),
        );
    }

    /** @return list<SavedProposal> */
    private function lines(int $list): array
    {
        $members = $list > 0 ? $this->lists->members($list) : null;

        return $this->board->basket($this->shell->site(), $members['items'] ?? null, 2000);
    }

    /** @return array{array<int|string, string>, list<string>} */
    private function wishes(Fields $fields): array
    {
        $pins = [];
        foreach ($fields->each('pin') as $line => $supplier) {
            if ('' !== $supplier) {
                $pins[(string) $line] = $supplier;
            }
        }
        $without = $fields->typed['without'] ?? [];

        return [$pins, is_array($without) ? array_values(array_filter($without, is_string(...))) : []];
    }
}
