<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Plans;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Closure;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\PlannedNeed;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Planning\KeepClosure;
use TallBarrel\Work\Planning\KeepOrderList;
use TallBarrel\Work\Planning\PlanDemand;

/** What people know beforehand: planned demand, lists to order from, days on which somebody is shut. */
#[Route('/plans')]
final class PlansController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OrderLists $lists,
        private readonly Sites $sites,
        private readonly ClockInterface $clock,
        private readonly Categories $categories,
    ) {
    }

    #[Route('', name: 'plans', methods: ['GET'])]
    public function plans(): Response
    {
        return $this->page(Fields::none());
    }

    /** One need a line: item code and quantity, for one occasion at one site. */
    #[Route('/demand', name: 'plans_demand', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function demand(Request $request, PlanDemand $plan, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $name = $fields->text('name', 80);
        $wanted = [];
        foreach ($this->lines($fields, 'lines') as $number => $line) {
            $parts = preg_split('/[\s,;]+/', $line) ?: [];
            if (2 !== count($parts)) {
                $fields->refuse(
                    'lines',
                    sprintf('Line %d, “%s”: expected an item code and a quantity.', $number, $line),
                );
            } else {
                $wanted[$number] = [$parts[0], $fields->quantity('lines', $parts[1])];
            }
        }
        $planned = $plan->plan(
            $name,
            $this->site($fields->text('site')),
            $fields->day('day', $fields->text('day')),
            $wanted,
            $person,
            $fields->problems,
        );
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash(
            'fine',
            sprintf('%s: %d %s planned.', $name, $planned, 1 === $planned ? 'item is' : 'items are'),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/demand/{id}/remove', name: 'plans_demand_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeDemand(int $id, PlanDemand $plan, #[CurrentUser] Person $person): Response
    {
        $plan->takeOut($id, $person);

        return $this->redirectToRoute('plans');
    }

    #[Route('/lists', name: 'plans_list', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function list(Request $request, KeepOrderList $keep): Response
    {
        $fields = Fields::of($request);
        $list = $keep->add(
            $fields->text('list', 60),
            $this->supplier($fields->text('supplier')),
            $this->site($fields->text('site')),
            $fields->text('category', 60),
            $this->lines($fields, 'items'),
            $fields->problems,
        );
        if (null === $list) {
            return $this->page($fields);
        }
        $this->addFlash(
            'fine',
            sprintf('The list “%s” is there: choose it on Reorder as what to start from.', $list->name),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/lists/{id}/remove', name: 'plans_list_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeList(int $id, KeepOrderList $keep): Response
    {
        $keep->giveUp($id);

        return $this->redirectToRoute('plans');
    }

    #[Route('/closures', name: 'plans_closure', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function closure(Request $request, KeepClosure $keep): Response
    {
        $fields = Fields::of($request);
        $supplier = $this->supplier($fields->text('who'));
        $first = $fields->day('first', $fields->text('first'));
        $last = $fields->day('first', $fields->text('last')) ?? $first;
        if (null === $keep->add($supplier, $first, $last, $fields->text('words', 80), $fields->problems)) {
            return $this->page($fields);
        }
        $this->addFlash(
            'fine',
            sprintf(
                '%s shut %s to %s; it is being planned around.',
                $supplier?->name() ?? 'We are',
                $first?->format('j M') ?? '',
                $last?->format('j M') ?? '',
            ),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/closures/{id}/remove', name: 'plans_closure_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeClosure(int $id, KeepClosure $keep): Response
    {
        $keep->takeBack($id);

        return $this->redirectToRoute('plans');
    }

    private function page(Fields $fields): Response
    {
        $today = $this->clock->now()->format('Y-m-d');

        return $this->render(
            'plans/plans.html.twig',
            [
                'needs' => $this->entities
                    ->createQuery(
                        'SELECT n, i, s FROM '.
                            PlannedNeed::class.
                            ' n JOIN n.item i JOIN n.site s WHERE n.day >= :today ORDER BY n.day, n.name, i.code',
                    )
                    ->setParameter('today', $today)
                    ->getResult(),
                'closures' => $this->entities
                    ->createQuery('SELECT c FROM '.Closure::class.' c WHERE c.last >= :today ORDER BY c.first')
                    ->setParameter('today', $today)
                    ->getResult(),
                'lists' => $this->lists->all(),
                'sites' => $this->sites->all(),
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']),
                'categories' => $this->categories->all(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /** @return array<int, string> lines that hold something, by number */
    private function lines(Fields $fields, string $name): array
    {
        $lines = [];
        foreach (preg_split('/\r\n|\n|\r/', $fields->text($name, 10000)) ?: [] as $i => $line) {
            if ('' !== trim($line)) {
                $lines[$i + 1] = trim($line);
            }
        }

        return $lines;
    }

    private function supplier(string $code): ?Supplier
    {
        return '' === $code
            ? null
            : $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]);
    }

    private function site(string $code): ?Site
    {
        return '' === $code ? null : $this->entities->getRepository(Site::class)->findOneBy(['code' => $code]);
    }
}
