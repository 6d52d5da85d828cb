<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Store\Offer\PriceList;
use TallBarrel\Store\Offer\PriceLists;
use TallBarrel\Store\Offer\PriceMove;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Sourcing\ApplyPriceList;
use TallBarrel\Work\Sourcing\BringPriceList;
use TallBarrel\Work\Sourcing\ListHeadings;

/** A supplier's price lists: brought, looked through, applied. */
#[Route('/suppliers/{code}/prices')]
#[AboutMoney]
final class PriceListsController extends AbstractController
{
    private const USUAL_LIMIT = '5';

    public function __construct(
        private readonly PriceLists $lists,
        private readonly BringPriceList $bring,
        private readonly ApplyPriceList $apply,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'price_lists', methods: ['GET'])]
    public function overview(string $code): Response
    {
        return $this->page($this->supplier($code), Fields::none());
    }

    /** What stands, in the form a list is brought in. */
    #[Route('/standing.csv', name: 'price_list_standing', methods: ['GET'])]
    public function standing(string $code): Response
    {
        return new Response($this->bring->standingAsFile($this->supplier($code)), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', strtolower($code).'-prices.csv'),
        ]);
    }

    #[Route('', name: 'price_list_bring', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function bring(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->supplier($code);
        $fields = Fields::of($request);
        $file = $request->files->get('file');
        [$from, $until, $limit] = $this->terms($fields);
        $list = $fields->isGood()
            ? $fields->attempt('file', function () use (
                $supplier,
                $person,
                $fields,
                $file,
                $from,
                $until,
                $limit,
            ): PriceList {
                if (!$file instanceof UploadedFile) {
                    throw InvalidValue::because('Choose a file first.');
                }
                if (!$file->isValid() || $file->getSize() > Imports::MOST_BYTES) {
                    throw InvalidValue::because(
                        sprintf(
                            'The file did not arrive whole, or has more than the %d MB that can be read at once.',
                            Imports::MOST_BYTES / 1048576,
                        ),
                    );
                }
                $list = new PriceList(
                    $supplier,
                    $person,
                    $this->clock->now(),
                    mb_substr($file->getClientOriginalName(), 0, 80),
                    '1' === $fields->text('complete'),
                    $from,
                    $until,
                    $limit,
                );
                $this->bring->bring($list, $file->getPathname());

                return $list;
            })
            : null;

        return null === $list
            ? $this->page($supplier, $fields)
            : $this->redirectToRoute('price_list', ['code' => $code, 'id' => $list->id]);
    }

    #[Route('/{id}', name: 'price_list', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function show(string $code, int $id, Request $request): Response
    {
        return $this->board(
            $this->find($code, $id),
            $request->query->getString('show'),
            NumbersInAddresses::read($request, 'page', 1),
            Fields::none(),
            $request,
        );
    }

    /** Somebody says which column is which. */
    #[Route('/{id}/columns', name: 'price_list_columns', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function columns(string $code, int $id, Request $request): Response
    {
        $list = $this->find($code, $id);
        $fields = Fields::of($request);
        $said = $fields->each('column');
        $mapping = [];
        foreach ($fields->each('heading') as $i => $heading) {
            $column = $said[$i] ?? '';
            $mapping[mb_strtolower(trim($heading))] = isset($this->bring->columns()[$column]) ? $column : '';
        }
        $fields->apply('columns', fn () => $this->bring->sayColumns($list, $mapping));
        if (!$fields->isGood()) {
            return $this->board($list, '', 1, $fields, $request, $mapping);
        }

        return $this->redirectToRoute('price_list', ['code' => $code, 'id' => $id]);
    }

    /** Keeps which lines are ticked: those shown, or all of a kind. */
    #[Route('/{id}/chosen', name: 'price_list_choose', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function choose(string $code, int $id, Request $request): Response
    {
        $list = $this->find($code, $id);
        $fields = Fields::of($request);
        $show = PriceMove::tryFrom($fields->text('show'));
        $all = $fields->text('all');
        if ('' !== $all && null !== $show) {
            $this->lists->chooseAll($list, $show, 'yes' === $all);
        } else {
            $this->lists->choose($list, array_keys($fields->each('shown')), array_keys($fields->each('chosen')));
        }

        return $request->headers->has('HX-Request')
            ? $this->board($list, $fields->text('show'), (int) $fields->text('page'), Fields::none(), $request)
            : $this->redirectToRoute('price_list', [
                'code' => $code,
                'id' => $id,
                'show' => $fields->text('show'),
                'page' => max(1, (int) $fields->text('page')),
            ]);
    }

    /**
     * Sets from when the prices hold and what is a striking rise; with "apply" they are applied, with "leave" set
     * aside.
     */
    #[Route('/{id}', name: 'price_list_settle', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function settle(string $code, int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $list = $this->find($code, $id);
        $fields = Fields::of($request);
        if ('leave' === $fields->text('do')) {
            $this->apply->putAway($list);
            $this->addFlash('fine', 'The list is set aside; nothing was changed.');

            return $this->redirectToRoute('price_lists', ['code' => $code]);
        }
        $list->mustBeOpen();
        [$from, $until, $limit] = $this->terms($fields);
        if ($fields->isGood()) {
            $fields->apply('until', fn () => $list->holds($from, $until));
        }
        if ($fields->isGood() && !$limit->isEqualTo($list->limitPercent())) {
            $fields->apply('limit', fn () => $this->lists->limit($list, $limit));
        }
        if (!$fields->isGood()) {
            $this->entities->refresh($list);

            return $this->board($list, $fields->text('show'), 1, $fields, $request);
        }
        $this->entities->flush();
        if ('apply' === $fields->text('do')) {
            try {
                $this->apply->ask($list, $person);
            } catch (Refused $refused) {
                $this->addFlash('short', $refused->getMessage());
            }
        }

        return $this->redirectToRoute('price_list', ['code' => $code, 'id' => $id]);
    }

    /** @return array{\DateTimeImmutable, \DateTimeImmutable|null, BigDecimal} */
    private function terms(Fields $fields): array
    {
        return [
            $fields->day('from', $fields->text('from')) ?? $this->clock->now()->setTime(0, 0),
            $fields->day('until', $fields->text('until')),
            $fields->price('limit', $fields->text('limit')) ?? BigDecimal::of(self::USUAL_LIMIT),
        ];
    }

    /** @param array<string, string>|null $mapping what was said of the columns; null for what is guessed */
    private function board(
        PriceList $list,
        string $show,
        int $page,
        Fields $fields,
        Request $request,
        ?array $mapping = null,
    ): Response {
        $file = $list->isUnclear() ? $this->bring->headings($list) : null;
        $counts = $this->lists->counts($list);
        $move = PriceMove::tryFrom($show);
        $wrong = 'wrong' === $show && [] !== $list->problems();
        if (!$wrong && (null === $move || !isset($counts[$move->value]))) {
            $move = PriceMove::tryFrom((string) array_key_first($counts));
        }
        $pages = null === $move ? 1 : max(1, (int) ceil($counts[$move->value]['rows'] / PriceLists::PAGE));
        $page = min(max(1, $page), $pages);

        return $this->render(
            'board' === $request->headers->get('HX-Target')
                ? 'suppliers/_price_list.html.twig'
                : 'suppliers/price_list.html.twig',
            [
                'list' => $list,
                'file' => null === $file || null === $mapping
                    ? $file
                    : new ListHeadings($file->headings, $mapping, $file->first),
                'columns' => $this->bring->columns(),
                'counts' => $counts,
                'moves' => PriceMove::cases(),
                'move' => $wrong ? null : $move,
                'rows' => $wrong || null === $move ? [] : $this->lists->rows($list, $move, $page),
                'page' => $page,
                'pages' => $pages,
                'fields' => $fields,
                'chosen' => array_sum(array_column($counts, 'chosen')),
                'yearly' => array_sum(array_map(floatval(...), array_column($counts, 'yearly'))),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function page(Supplier $supplier, Fields $fields): Response
    {
        $lists = $this->lists->of($supplier);

        return $this->render(
            'suppliers/price_lists.html.twig',
            [
                'supplier' => $supplier,
                'lists' => $lists,
                'columns' => $this->bring->columns(),
                'fields' => $fields,
                'limit' => ($lists[0] ?? null)?->limitPercent() ?? BigDecimal::of(self::USUAL_LIMIT),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function supplier(string $code): Supplier
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no supplier %s.', $code));
    }

    private function find(string $code, int $id): PriceList
    {
        $list = $this->entities->find(PriceList::class, $id);

        return null !== $list && $list->supplier->code === $code
            ? $list
            : throw $this->createNotFoundException('There is no such price list.');
    }
}
