<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderFilter;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\KeptView;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\KeepView;
use TallBarrel\Work\Ordering\AcknowledgeOrder;
use TallBarrel\Work\Ordering\ChaseOrder;
use TallBarrel\Work\Ordering\EndOrder;
use TallBarrel\Work\Ordering\OrderPaper;
use TallBarrel\Work\Ordering\SeenOrder;

/** The orders there are: what is to be done with them, or those that somebody looks for. */
#[Route('/orders')]
final class OrderListController extends AbstractController
{
    private const PAGE = 100;
    private const MOST_ON_PAPER = 500;
    private const LOOKS = ['orders' => 'Orders', 'lines' => 'Open lines', 'suppliers' => 'By supplier'];
    private const FIELDS = [
        'words', 'state', 'supplier', 'item', 'site', 'buyer', 'from', 'until', 'late', 'sort', 'look',
    ];

    public function __construct(
        private readonly OrderRows $rows,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentBusiness $business,
        private readonly SeenSites $seen,
    ) {
    }

    #[Route('', name: 'orders', methods: ['GET'])]
    public function list(Request $request, Shell $shell, #[CurrentUser] Person $person): Response
    {
        if ([] !== array_intersect_key($request->query->all(), array_flip(self::FIELDS))) {
            return $this->found($request, $shell, $person);
        }
        $open = array_values(
            array_filter(OrderState::cases(), static fn (OrderState $state): bool => !$state->isSettled()),
        );
        $groups = ['Awaiting approval' => [], 'Ready to send' => [], 'Drafts' => [], 'On its way' => []];
        foreach ($this->rows->in($open, null) as $order) {
            if (!$this->isSeen($order)) {
                continue;
            }
            $groups[self::heading($order->state)][] = $order;
        }

        return $this->render('orders/orders.html.twig', [
            'groups' => array_filter($groups, static fn (array $orders): bool => [] !== $orders),
            'views' => $this->views($person),
        ]);
    }

    /** One without lines is nobody's yet. */
    private function isSeen(OrderRow $order): bool
    {
        return [] === $order->sites || [] !== array_filter(array_keys($order->sites), $this->seen->has(...));
    }

    private static function heading(OrderState $state): string
    {
        return match (true) {
            $state->isOpen() => 'On its way',
            OrderState::Draft === $state => 'Drafts',
            OrderState::AwaitingApproval === $state => 'Awaiting approval',
            default => 'Ready to send',
        };
    }

    private function found(Request $request, Shell $shell, Person $person): Response
    {
        $fields = Fields::query($request);
        $filter = $this->filter($fields, $person);
        $look = isset(self::LOOKS[$fields->text('look')]) ? $fields->text('look') : 'orders';
        $page = max(1, NumbersInAddresses::read($request, 'page', 1));
        $offset = self::PAGE * ($page - 1);

        return $this->render(
            'orders/found.html.twig',
            [
                'filter' => $filter,
                'fields' => $fields,
                'look' => $look,
                'looks' => self::LOOKS,
                'sorts' => OrderFilter::SORTS,
                'states' => OrderState::cases(),
                'orders' => 'orders' === $look ? $this->rows->find($filter, $offset, self::PAGE) : [],
                'lines' => 'lines' === $look ? $this->rows->openLines($filter, $offset, self::PAGE) : [],
                'sums' => 'suppliers' === $look ? $this->rows->bySupplier($filter) : [],
                'home' => $this->business->get()->currency,
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']),
                'people' => $this->entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']),
                'sites' => $shell->sites(),
                'page' => $page,
                'perPage' => self::PAGE,
                'query' => $this->query($request),
                'views' => $this->views($person),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /** What is shown, all pages of it, to be opened elsewhere. */
    #[Route('.{format}', name: 'orders_file', requirements: ['format' => TakenFile::FORMATS], methods: ['GET'],
        priority: 1), AboutMoney]
    public function takeOut(
        string $format,
        Request $request,
        OrderTables $tables,
        TakenFile $file,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::query($request);

        return $file->of('orders', $tables->of($fields->text('look'), $this->filter($fields, $person)), $format);
    }

    /** The same on paper, the first of it where it is long. */
    #[Route('.pdf', name: 'orders_paper', methods: ['GET'], priority: 1), AboutMoney]
    public function paper(Request $request, OrderPaper $paper, #[CurrentUser] Person $person): Response
    {
        $filter = $this->filter(Fields::query($request), $person);

        return new Response($paper->list($this->rows->find($filter, 0, self::MOST_ON_PAPER)), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="orders.pdf"',
        ]);
    }

    #[Route('/views', name: 'orders_view_keep', methods: ['POST'], priority: 1)]
    public function keep(Request $request, KeepView $views, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        parse_str($fields->text('query', 500), $query);
        $query = array_intersect_key($query, array_flip(self::FIELDS));
        try {
            $views->keep($person, $fields->text('name', 40), http_build_query($query));
            $this->addFlash('fine', sprintf('“%s” stands beside the list from now on.', $fields->text('name', 40)));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('orders', $query);
    }

    #[Route('/views/{id}/go', name: 'orders_view_go', requirements: ['id' => '\d+'], methods: ['POST'], priority: 1)]
    public function letGo(int $id, KeepView $views, #[CurrentUser] Person $person): Response
    {
        $views->letGo($person, $id);

        return $this->redirectToRoute('orders', ['state' => OrderFilter::OPEN]);
    }

    /**
     * Of several orders: asks their suppliers where they are, notes that they said yes to the days that are wanted, or
     * gives up what has not come.
     */
    #[Route('/ask', name: 'orders_ask', methods: ['POST'], priority: 1), IsGranted('ROLE_BUY')]
    public function ask(
        Request $request,
        Orders $orders,
        ChaseOrder $chase,
        AcknowledgeOrder $acknowledge,
        EndOrder $end,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        parse_str($fields->text('query', 500), $query);
        $agreed = $fields->text('agreed', 80);
        [$act, $said] = match ($fields->text('do')) {
            'confirm' => [
                static fn (PurchaseOrder $order) => $acknowledge->asWanted($order, $person),
                'Acknowledged as wanted: %s.',
            ],
            'close' => [
                static fn (PurchaseOrder $order) => $end->closeShort(SeenOrder::now($order), $person, $agreed),
                'Closed, the rest does not come: %s.',
            ],
            default => [
                static fn (PurchaseOrder $order) => $chase->askWhere($order, $person),
                'Asked about %s.',
            ],
        };
        $done = $refusals = [];
        foreach (array_keys($fields->each('ask')) as $id) {
            try {
                $order = $orders->find($id) ?? throw new Refused('One of the orders is gone.');
                $act($order);
                $done[] = $order->number;
            } catch (Refused $refused) {
                $refusals[] = $refused->getMessage();
            }
        }
        if ([] !== $done) {
            $this->addFlash('fine', sprintf($said, implode(', ', $done)));
        }
        if ([] !== $refusals || [] === $done) {
            $words = [] === $refusals ? ['Tick the orders that are meant.'] : array_unique($refusals);
            $this->addFlash('watch', implode(' ', $words));
        }

        return $this->redirectToRoute('orders', array_intersect_key($query, array_flip(self::FIELDS)));
    }

    private function filter(Fields $fields, Person $person): OrderFilter
    {
        $buyer = $fields->text('buyer');
        $day = static fn (string $name): ?string => $fields->day($name, $fields->text($name))?->format('Y-m-d');

        return new OrderFilter(
            $fields->text('words', 60),
            $fields->text('state', missing: OrderFilter::ALL),
            $fields->text('supplier', 20),
            $fields->text('item', 40),
            $this->seen->areAll() || '' !== $fields->text('site')
                ? ('' === $fields->text('site') ? null : (int) $fields->text('site'))
                : $this->seen->ids()[0],
            'me' === $buyer ? $person->id : ('' === $buyer ? null : (int) $buyer),
            $day('from'),
            $day('until'),
            '1' === $fields->text('late'),
            $fields->text('sort', missing: 'due'),
        );
    }

    /** @return array<string, string> what of the address is a part of the view */
    private function query(Request $request): array
    {
        $query = [];
        foreach (self::FIELDS as $name) {
            $value = $request->query->all()[$name] ?? '';
            if (is_string($value) && '' !== $value) {
                $query[$name] = $value;
            }
        }

        return $query;
    }

    /** @return list<KeptView> */
    private function views(Person $person): array
    {
        return $this->entities->getRepository(KeptView::class)->findBy(['person' => $person], ['name' => 'ASC']);
    }
}
