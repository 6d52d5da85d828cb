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
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\LineChoices;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Supplier\SupplierChoices;
use TallBarrel\Work\Ordering\BeginOrder;

/** Begins an order by hand, and finds what goes on it. */
#[Route('/orders'), IsGranted('ROLE_BUY')]
final class BeginController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SupplierChoices $suppliers,
        private readonly Sites $sites,
        private readonly Shell $shell,
    ) {
    }

    #[Route('/new', name: 'order_new', methods: ['GET'], priority: 1)]
    public function choose(Request $request): Response
    {
        $item = $this->item($request->query->getString('item'));
        $words = trim(mb_substr($request->query->getString('q'), 0, 60));

        return $this->render(
            'suppliers-found' === $request->headers->get('HX-Target')
                ? 'orders/_suppliers_found.html.twig'
                : 'orders/new.html.twig',
            [
                'found' => $this->suppliers->find($words, $item),
                'item' => $item,
                'words' => $words,
                'number' => trim(mb_substr($request->query->getString('number'), 0, 30)),
            ],
        );
    }

    #[Route('/new', name: 'order_begin', methods: ['POST'], priority: 1)]
    public function begin(Request $request, BeginOrder $begin, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $supplier = $this->entities
            ->getRepository(Supplier::class)
            ->findOneBy(['code' => $fields->text('supplier')]);
        $item = $this->item($fields->text('item'));
        if (null === $supplier) {
            $this->addFlash('short', 'Choose a supplier from the list.');

            return $this->redirectToRoute('order_new');
        }
        $first = null === $item
            ? null
            : $this->entities
                ->getRepository(Offer::class)
                ->findOneBy(['supplier' => $supplier, 'item' => $item], ['rank' => 'ASC']);
        try {
            $order = $begin->byHand(
                $supplier,
                $person,
                $first,
                $this->shell->site() ?? $this->sites->all()[0],
                $fields->text('number', 30),
            );
        } catch (Refused|InvalidValue $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('order_new', array_diff([
                'q' => $supplier->code,
                'item' => $fields->text('item'),
                'number' => $fields->text('number', 30),
            ], ['']));
        }

        return $this->redirectToRoute('order', ['number' => $order->number, 'more' => 1]);
    }

    /** What could be added to an order, while somebody types. */
    #[Route('/{number}/choices', name: 'order_choices', methods: ['GET'])]
    public function choices(string $number, Request $request, Orders $orders, LineChoices $choices): Response
    {
        $order =
            $orders->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no order %s.', $number));
        $site = $this->sites->find(NumbersInAddresses::read($request, 'add_site')) ?? $this->sites->all()[0];

        return $this->render('orders/_choices.html.twig', [
            'choices' => $choices->find(
                $order->supplier,
                $site,
                trim(mb_substr($request->query->getString('add'), 0, 60)),
            ),
            'site' => $site,
        ]);
    }

    private function item(string $code): ?Item
    {
        return '' === $code ? null : $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
    }
}
