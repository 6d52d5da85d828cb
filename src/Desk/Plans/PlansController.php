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
use TallBarrel\Core\InvalidValue;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\Stocking;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Closure;
use TallBarrel\Store\Planning\OrderList;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\PlannedNeed;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;

/** What people know beforehand: planned demand, lists to order from, days on which somebody is shut. */
#[Route('/plans')]
final class PlansController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OrderLists $lists,
        private readonly Sites $sites,
        private readonly Audit $audit,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'plans', methods: ['GET'])]
    public function plans(): Response
    {
        return $this->page(Fields::none());
    }

    /** One need a line: item code and quantity, for one occasion at one site. */
    #[Route('/demand', name: 'plans_demand', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function demand(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $site = $this->site($fields->text('site'));
        $name = $fields->text('name', 80);
        $day = $fields->day('day', $fields->text('day'));
        if (null === $day && !isset($fields->errors()['day'])) {
            $fields->refuse('day', 'Say on which day it is wanted.');
        }
        if (null !== $day && $day->format('Y-m-d') < $this->clock->now()->format('Y-m-d')) {
            $fields->refuse('day', sprintf('%s has passed.', $day->format('j M Y')));
        }
        if (null === $site) {
            $fields->refuse('site', 'Choose a site.');
        }
        $needs = [];
        foreach ($this->lines($fields, 'lines') as $number => $line) {
            $parts = preg_split('/[\s,;]+/', $line) ?: [];
            $fields->attempt('lines', function () use (
                $parts,
                $number,
                $line,
                $fields,
                $site,
                $day,
                $name,
                $person,
                &$needs,
            ): void {
                if (2 !== count($parts)) {
                    throw InvalidValue::because(
                        sprintf('Line %d, “%s”: expected an item code and a quantity.', $number, $line),
                    );
                }
                $item =
                    $this->item($parts[0]) ??
                    throw InvalidValue::because(sprintf('Line %d: there is no item %s.', $number, $parts[0]));
                $quantity = $fields->quantity('lines', $parts[1]);
                if (null !== $quantity && null !== $site && null !== $day) {
                    if (null === $this->entities->find(Stocking::class, ['item' => $item, 'site' => $site])) {
                        throw InvalidValue::because(
                            sprintf('Line %d: %s does not stock %s.', $number, $site->name, $item->code),
                        );
                    }
                    $needs[] = new PlannedNeed($item, $site, $quantity, $day, $name, $person);
                }
            });
        }
        if ([] === $needs && $fields->isGood()) {
            $fields->refuse('lines', 'List what is wanted, one item code and quantity a line.');
        }
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        array_map($this->entities->persist(...), $needs);
        $this->audit->note(
            $person,
            'plans',
            sprintf('%s, %s: %d items planned', $name, $day?->format('j M') ?? '', count($needs)),
        );
        $this->entities->flush();
        $this->addFlash(
            'fine',
            sprintf('%s: %d %s planned.', $name, count($needs), 1 === count($needs) ? 'item is' : 'items are'),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/demand/{id}/remove', name: 'plans_demand_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeDemand(int $id, #[CurrentUser] Person $person): Response
    {
        $need = $this->entities->find(PlannedNeed::class, $id);
        if (null !== $need) {
            $this->audit->note(
                $person,
                'plans',
                sprintf(
                    '%s: %s of %s taken out',
                    $need->name,
                    $need->quantity->strippedOfTrailingZeros(),
                    $need->item->code,
                ),
            );
            $this->entities->remove($need);
            $this->entities->flush();
        }

        return $this->redirectToRoute('plans');
    }

    #[Route('/lists', name: 'plans_list', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function list(Request $request): Response
    {
        $fields = Fields::of($request);
        $items = [];
        foreach ($this->lines($fields, 'items') as $number => $line) {
            $item = $this->item($line);
            if (null === $item) {
                $fields->refuse('items', sprintf('Line %d: there is no item %s.', $number, $line));
            } else {
                $items[$item->id] = $item;
            }
        }
        $supplier =
            '' === $fields->text('supplier')
                ? null
                : $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $fields->text('supplier')]);
        $name = $fields->text('list', 60);
        if ([] !== array_filter($this->lists->all(), static fn (OrderList $list): bool => $list->name === $name)) {
            $fields->refuse('list', sprintf('There is a list called “%s” already.', $name));
        }
        $list = $fields->isGood()
            ? $fields->attempt(
                'list',
                fn (): OrderList => new OrderList(
                    $name,
                    $supplier,
                    $this->site($fields->text('site')),
                    $fields->text('category', 60),
                    array_values($items),
                ),
            )
            : null;
        if (null === $list) {
            return $this->page($fields);
        }
        $this->entities->persist($list);
        $this->entities->flush();
        $this->addFlash(
            'fine',
            sprintf('The list “%s” is there: choose it on Reorder as what to start from.', $list->name),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/lists/{id}/remove', name: 'plans_list_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeList(int $id): Response
    {
        $list = $this->entities->find(OrderList::class, $id);
        if (null !== $list) {
            $this->entities->remove($list);
            $this->entities->flush();
        }

        return $this->redirectToRoute('plans');
    }

    #[Route('/closures', name: 'plans_closure', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function closure(Request $request): Response
    {
        $fields = Fields::of($request);
        $supplier =
            '' === $fields->text('who')
                ? null
                : $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $fields->text('who')]);
        $first = $fields->day('first', $fields->text('first'));
        $last = $fields->day('first', $fields->text('last')) ?? $first;
        if (null === $first || null === $last) {
            $fields->refuse('first', 'Give the first day, and the last if there are more.');
        }
        $closure =
            null === $first || null === $last || !$fields->isGood()
                ? null
                : $fields->attempt(
                    'first',
                    static fn (): Closure => new Closure($supplier, $first, $last, $fields->text('words', 80)),
                );
        if (null === $closure) {
            return $this->page($fields);
        }
        $this->entities->persist($closure);
        $this->entities->flush();
        $this->addFlash(
            'fine',
            sprintf(
                '%s shut %s to %s; it is being planned around.',
                $supplier?->name() ?? 'We are',
                $first->format('j M'),
                $last->format('j M'),
            ),
        );

        return $this->redirectToRoute('plans');
    }

    #[Route('/closures/{id}/remove', name: 'plans_closure_remove', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function removeClosure(int $id): Response
    {
        $closure = $this->entities->find(Closure::class, $id);
        if (null !== $closure) {
            $this->entities->remove($closure);
            $this->entities->flush();
        }

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
                'categories' => $this->entities
                    ->createQuery('SELECT DISTINCT i.category FROM '.Item::class.' i ORDER BY i.category')
                    ->getSingleColumnResult(),
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

    private function item(string $code): ?Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
    }

    private function site(string $code): ?Site
    {
        return '' === $code ? null : $this->entities->getRepository(Site::class)->findOneBy(['code' => $code]);
    }
}
